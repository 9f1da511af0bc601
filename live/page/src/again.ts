// A take happens again: on the settings of now, and beside it on those of before. Time can be taken in the hand:
// forward and back, step by step, slow.
import type { Session, Take } from './session';
import type { Trace } from './trace';
import type { Picture } from '../../../npm/src/ubbo';

export class Again {
  take: Take | undefined;
  now: Trace | undefined;
  before: Trace | undefined;
  /** Where it is, µs since the take began. */
  time = 0;
  speed = 1;
  playing = false;
  /** Shown instead of the live stage. */
  shown = false;
  which: number[] = [];
  private run = 0;
  private at = -1;
  private last_frame = 0;
  private before_key = '';

  constructor(
    private readonly session: Session,
    private readonly changed: () => void,
  ) {}

  /** Another take, or other settings: both traces are made anew. */
  follow(take: Take | undefined): void {
    this.take = take;
    this.refresh();
  }

  refresh(): void {
    this.drop();
    const take = this.take;
    if (take === undefined) {
      this.now = this.before = undefined;
      this.changed();
      return;
    }
    const { session } = this;
    this.now = session.trace(session.now_scene, take, this.which);
    const key = JSON.stringify([[...session.before], take.text, this.which, session.is_pulling]);
    const same = JSON.stringify([...session.before]) === JSON.stringify([...session.changed]);
    if (same) {
      this.before = undefined;
      this.before_key = '';
    } else if (key !== this.before_key) {
      const scene = session.scene_with(session.before);
      this.before = scene === 0 ? undefined : session.trace(scene, take, this.which);
      session.ubbo.free_scene(scene);
      this.before_key = key;
    }
    this.time = Math.min(this.time, this.ends);
    this.changed();
  }

  get ends(): number {
    return Math.max(this.now?.ends ?? 0, this.before?.ends ?? 0);
  }

  seek(time: number): void {
    this.time = Math.max(0, Math.min(time, this.ends));
    this.shown = true;
    this.changed();
  }
  step(frames: number): void {
    this.playing = false;
    this.seek(this.time + (frames * 1e6) / 60);
  }
  play(from = this.time >= this.ends ? 0 : this.time): void {
    if (this.take === undefined) return;
    this.playing = true;
    this.last_frame = 0;
    this.seek(from);
  }
  pause(): void {
    this.playing = false;
    this.changed();
  }
  /** Back to the live stage. */
  leave(): void {
    if (!this.shown) return;
    this.shown = this.playing = false;
    this.changed();
  }

  /** One frame of the display. Returns whether another one is needed. */
  frame(now: number): boolean {
    if (!this.playing) return false;
    const passed = this.last_frame === 0 ? 0 : (now - this.last_frame) * 1000;
    this.last_frame = now;
    this.time = Math.min(this.ends, this.time + passed * this.speed);
    if (this.time >= this.ends) this.playing = false;
    this.changed();
    return this.playing;
  }

  /** Brings its run to its time; that is kept as long as time goes forward. */
  go(): boolean {
    if (this.take === undefined) return false;
    const { session } = this;
    if (this.run === 0 || this.time < this.at) {
      this.drop();
      this.run = session.ubbo.begin_take(session.now_scene, this.take.text, this.take.name);
    }
    if (this.run === 0) return false;
    session.ubbo.play(this.run, Math.round(this.time));
    this.at = this.time;
    return true;
  }
  /** The stage at its time. */
  picture(dark: boolean, text_scale: number): Picture | undefined {
    return this.go() ? this.session.ubbo.picture(this.run, dark, text_scale) : undefined;
  }
  /** The run at its time, after `go`. */
  get shown_run(): number {
    return this.run;
  }

  private drop(): void {
    if (this.run !== 0) this.session.ubbo.free_run(this.run);
    this.run = 0;
    this.at = -1;
  }

  /** Which step of a trace shows its time. */
  static index(trace: Trace, time: number): number {
    return Math.min(trace.values.length - 1, Math.max(0, Math.round(time / trace.step)));
  }
}
