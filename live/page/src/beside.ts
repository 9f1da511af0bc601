// The same finger on other settings at the same time: A beside B.
import type { Given, Session, Take } from './session';
import type { Picture } from '../../../npm/src/ubbo';

export class Beside {
  on = false;
  private scene = 0;
  private run = 0;
  private base = 0;
  private again = 0; // a run that plays a take
  private again_at = -1;
  private again_of = '';

  constructor(private readonly session: Session) {}

  /** The settings of now are kept as A; what is changed from here on is B. */
  begin(): void {
    this.end();
    this.scene = this.session.scene_with(this.session.changed);
    if (this.scene === 0) return;
    this.run = this.session.ubbo.resume(this.scene, this.session.live, false) || this.session.ubbo.begin(this.scene);
    this.base = performance.now();
    this.on = this.run !== 0;
  }
  end(): void {
    const { ubbo } = this.session;
    for (const run of [this.run, this.again]) if (run !== 0) ubbo.free_run(run);
    if (this.scene !== 0) ubbo.free_scene(this.scene);
    this.run = this.again = this.scene = 0;
    this.again_of = '';
    this.on = false;
  }

  /** What the finger does on B happens here too. */
  give(given: Given, now: number): void {
    if (!this.on) return;
    const { ubbo } = this.session;
    if (given.head !== undefined) {
      const next = ubbo.begin_take(this.scene, given.head, 'beside');
      if (next !== 0) {
        ubbo.play(next, -1);
        ubbo.free_run(this.run);
        this.run = next;
        this.base = now;
      }
    }
    if (given.touch !== undefined) ubbo.touch(this.run, given.touch);
    if (given.act !== undefined) ubbo.act(this.run, given.act);
  }

  /** One frame; whether another one is needed. */
  frame(now: number): boolean {
    if (!this.on) return false;
    this.session.ubbo.advance(this.run, Math.max(0, Math.round((now - this.base) * 1000)));
    return !this.session.ubbo.settled(this.run);
  }

  picture(dark: boolean, text_scale: number): Picture {
    return this.session.ubbo.picture(this.run, dark, text_scale);
  }
  /** A take on A, at a time. */
  picture_at(take: Take, time: number, dark: boolean, text_scale: number): Picture {
    const { ubbo } = this.session;
    if (this.again === 0 || time < this.again_at || this.again_of !== take.text) {
      if (this.again !== 0) ubbo.free_run(this.again);
      this.again = ubbo.begin_take(this.scene, take.text, take.name);
      this.again_of = take.text;
    }
    if (this.again === 0) return this.picture(dark, text_scale);
    ubbo.play(this.again, Math.round(time));
    this.again_at = time;
    return ubbo.picture(this.again, dark, text_scale);
  }
}
