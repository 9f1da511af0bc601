// What is at work in the page: the scene as it is now, the run under the finger, what was touched last, and the way
// back through all changes. Nothing here draws.
import { phases } from '../../../npm/src/ubbo';
import { trace_of } from './trace';
import type { Trace } from './trace';
import type { Act, Fault, Reading, SceneSettings, SceneTold, Setting, Touch, Ubbo } from '../../../npm/src/ubbo';

export interface Source {
  name: string; // of the scene file
  text: string;
  takes: { name: string; text: string }[];
  takes_left_out: number; // of the folder: too many, or too long
  images: Record<string, string>; // name to address
  served: boolean;
  /** The stage as it begins, as `Ubbo.picture` gives it; not of a scene that only a tool of one's own can read. */
  first?: { w: number; h: number; day: number[]; dark: number[]; texts: string };
}

/** A take that was made or kept, with what came of it. */
export interface Take {
  name: string;
  text: string;
  outcome: string; // what the cells held at its end
  meant: string;
  kept: boolean;
}

export type Event =
  | { what: 'scene' } // another scene, or other settings
  | { what: 'pull' } // one number of it, while that is being pulled
  | { what: 'take' } // one has been made
  | { what: 'takes' } // the list of those that are kept has changed
  | { what: 'fault' } // a change or a file does not read
  | { what: 'decided' }
  | { what: 'woken' } // something moves
  | { what: 'chosen' }; // another part

/** What a run was given, for others that follow it. */
export type Given = { head?: string; touch?: Touch; act?: Act };

interface Step {
  changes: ReadonlyMap<string, string>;
}

export class Session {
  told!: SceneTold;
  fault: Fault[] = [];
  fault_of = ''; // the change that does not read, or "" where the file does not
  chosen = ''; // the part whose settings are shown
  last: Take | undefined;
  readonly takes: Take[] = [];
  /** Hears what the run is given. */
  on_given: ((given: Given) => void) | undefined;
  /** False while someone else's finger has the stage. */
  may_touch: () => boolean = () => true;

  private known_settings: SceneSettings | undefined;
  private known_readings: Reading[] | undefined;
  private changes = new Map<string, string>();
  private readonly undone: Step[] = [];
  private readonly done: Step[] = [];
  private pulling = false; // one number is being changed, step by step
  private before_changes: ReadonlyMap<string, string> = new Map();
  private scene = 0;
  private run = 0;
  private base = 0; // the page's time at which the run began, ms
  private began = false; // the run has been given something
  private hovers_only = false; // nothing was touched or done in it since all rested
  private as_said = false; // it is as the scene says, nothing was carried over
  private told_take = ''; // what the last take was made of
  private later = false; // another scene is to come when all rests
  private readonly listeners: ((event: Event) => void)[] = [];

  constructor(
    readonly ubbo: Ubbo,
    public source: Source,
  ) {
    for (const take of source.takes) this.takes.push({ ...take, outcome: '', meant: meant_of(take.text), kept: true });
  }

  listen(call: (event: Event) => void): void {
    this.listeners.push(call);
  }
  private tell(event: Event): void {
    for (const call of this.listeners) call(event);
  }

  /** Reads the scene file anew. False when it does not read; what was there stays. */
  open(source: Source = this.source, now = performance.now()): boolean {
    const scene = this.ubbo.read_scene(source.text, source.name, this.lines(this.changes));
    let usable = scene;
    if (scene === 0) {
      this.fault = this.ubbo.fault();
      // What was changed may be what it no longer knows.
      usable = this.changes.size > 0 ? this.ubbo.read_scene(source.text, source.name, []) : 0;
      if (usable === 0) {
        this.fault_of = '';
        this.source = { ...this.source, takes: source.takes };
        this.tell({ what: 'fault' });
        return false;
      }
      this.changes = new Map();
      this.before_changes = new Map();
    }
    this.source = source;
    this.fault = [];
    this.fault_of = '';
    this.use(usable, now);
    return true;
  }

  private lines(changes: ReadonlyMap<string, string>): string[] {
    return [...changes].map(([key, value]) => `${key}=${value}`);
  }

  private use(scene: number, now: number): void {
    const before = this.scene;
    this.scene = scene;
    this.told = this.ubbo.told(scene);
    this.known_settings = undefined;
    if (before !== 0) this.ubbo.free_scene(before);
    if (!this.told.parts.some((part) => part.id === this.chosen)) this.chosen = this.told.parts[0]?.id ?? '';
    if (this.run !== 0 && !this.ubbo.settled(this.run)) this.later = true;
    else this.renew(now);
    this.tell({ what: 'scene' });
  }

  // The run of the scene as it is now, from where the one before rests.
  private renew(now: number): void {
    this.later = false;
    const before = this.run;
    const kept = before !== 0 && !(this.as_said && !this.began) ? this.ubbo.resume(this.scene, before, false) : 0;
    const next = kept || this.ubbo.begin(this.scene);
    if (next === 0) {
      this.fault = this.ubbo.fault();
      this.tell({ what: 'fault' });
      return;
    }
    this.take_over(next, now, kept === 0);
  }

  private take_over(next: number, now: number, as_said = false): void {
    if (this.run !== 0) this.ubbo.free_run(this.run);
    this.run = next;
    this.base = now;
    this.began = false;
    this.as_said = as_said;
    this.known_readings = undefined;
    this.tell({ what: 'woken' });
  }

  /** From the beginning, as the scene says. */
  restart(now = performance.now()): void {
    const next = this.ubbo.begin(this.scene);
    if (next !== 0) this.take_over(next, now, true);
    this.told_take = '';
    this.tell({ what: 'decided' });
  }

  // ----- what is given to the run

  get live(): number {
    return this.run;
  }
  time_of(now: number): number {
    return Math.max(0, Math.round((now - this.base) * 1000));
  }

  /** Before something is given: a take begins where all rests, so that it is short. */
  private before_event(now: number): void {
    if (this.later && this.ubbo.settled(this.run)) this.renew(now);
    // Its time is 0 at the first event.
    if (this.ubbo.settled(this.run)) {
      const fresh = this.as_said && !this.began;
      const next = fresh ? this.ubbo.begin(this.scene) : this.ubbo.resume(this.scene, this.run, true);
      if (next !== 0) this.take_over(next, now, fresh);
    }
    if (!this.began) {
      this.began = true;
      this.on_given?.({ head: this.ubbo.take(this.run) });
      this.tell({ what: 'decided' });
    }
  }

  touch(touch: Touch, now: number): boolean {
    if (!this.may_touch()) return false;
    if (touch.phase === phases.down) this.before_event(now);
    // What hovers goes on in the take that there is, and makes none by itself.
    if (touch.phase >= phases.hover) this.as_said = false;
    if (touch.phase <= phases.cancel) this.hovers_only = false;
    const given = { ...touch, time: this.time_of(now) };
    const taken = this.ubbo.touch(this.run, given);
    this.on_given?.({ touch: given });
    this.tell({ what: 'woken' });
    return taken;
  }

  act(kind: string, target = '', value = '', now = performance.now()): boolean {
    if (!this.may_touch()) return false;
    this.before_event(now);
    this.hovers_only = false;
    const given = { kind, target, value, time: this.time_of(now) };
    const done = this.ubbo.act(this.run, given);
    if (!done) {
      this.fault = this.ubbo.fault();
      this.fault_of = kind;
      this.tell({ what: 'fault' });
    } else {
      this.on_given?.({ act: given });
    }
    this.tell({ what: 'woken' });
    return done;
  }

  /** Follows another viewer's run. */
  follow(given: Given, now: number): void {
    if (given.head !== undefined) {
      const next = this.ubbo.begin_take(this.scene, given.head, 'follow');
      if (next === 0) return;
      this.ubbo.play(next, -1);
      this.take_over(next, now);
      this.began = true;
      this.tell({ what: 'decided' });
    }
    if (given.touch !== undefined) this.ubbo.touch(this.run, given.touch);
    if (given.act !== undefined) this.ubbo.act(this.run, given.act);
    const newest = given.touch?.time ?? given.act?.time ?? 0;
    // Both clocks run alike from here on; what comes late is not shown late for ever.
    this.base = Math.min(this.base, now - newest / 1000);
    this.tell({ what: 'woken' });
  }

  /** One frame. Returns false when no other is needed before the next event. */
  frame(now: number): boolean {
    const time = this.time_of(now);
    this.ubbo.advance(this.run, time);
    const due = this.ubbo.due(this.run);
    if (!this.ubbo.settled(this.run)) return true;
    if (this.began && !this.hovers_only) this.made();
    if (this.later && !this.pulling) this.renew(now);
    return due >= 0 && due <= time;
  }
  /** When the run next needs a frame by itself, ms of the page's time; nothing: not before the next event. */
  wakes(): number | undefined {
    const due = this.ubbo.due(this.run);
    return due < 0 ? undefined : this.base + due / 1000;
  }

  // All rests again: what was touched is a take.
  private made(): void {
    const text = this.ubbo.take(this.run);
    if (text === this.told_take) return;
    this.told_take = text;
    this.hovers_only = true;
    this.last = { name: 'last touch', text, outcome: this.ubbo.cells(this.run), meant: '', kept: false };
    this.before_changes = new Map(this.changes);
    this.tell({ what: 'take' });
  }

  // ----- changes

  /** What can be followed over time; asked for only when it is. */
  get readings(): Reading[] {
    this.known_readings ??= this.ubbo.readings(this.run);
    return this.known_readings;
  }
  /** All settings; asked for only when they are shown. */
  get settings(): SceneSettings {
    this.known_settings ??= this.ubbo.settings(this.scene);
    return this.known_settings;
  }
  /** One of them, by a key such as `frames.step`. */
  setting(key: string): { setting: Setting; value: string } | undefined {
    const { groups, parts, kinds } = this.settings;
    const owners = [
      ...groups.map((group) => ({ owner: group.name, settings: group.settings, values: group.values })),
      ...parts.map((part) => ({ owner: part.id, settings: kinds[part.kind], values: part.values })),
    ];
    for (const { owner, settings, values } of owners) {
      const at = key.startsWith(`${owner}.`) ? settings.findIndex((setting) => `${owner}.${setting.name}` === key) : -1;
      if (at >= 0) return { setting: settings[at], value: values[at] };
    }
    return undefined;
  }

  value_of(key: string): string | undefined {
    return this.changes.get(key);
  }
  get changed(): ReadonlyMap<string, string> {
    return this.changes;
  }

  /** Sets `PART.SETTING` to a value as scenes write it. While a number is being pulled, all its steps are one. */
  set(key: string, value: string | undefined, pulling = false): boolean {
    const next = new Map(this.changes);
    if (value === undefined) next.delete(key);
    else next.set(key, value);
    const scene = this.ubbo.read_scene(this.source.text, this.source.name, this.lines(next));
    if (scene === 0) {
      this.fault = this.ubbo.fault();
      this.fault_of = key;
      this.tell({ what: 'fault' });
      return false;
    }
    if (!this.pulling) {
      this.done.push({ changes: this.changes });
      this.undone.length = 0;
      this.before_changes = this.changes;
    }
    this.pulling = pulling;
    this.changes = next;
    this.fault = [];
    this.fault_of = '';
    if (pulling) {
      // All else that follows from another scene waits until the number is let go.
      this.ubbo.free_scene(this.scene);
      this.scene = scene;
      this.later = true;
      this.tell({ what: 'pull' });
    } else {
      this.use(scene, performance.now());
    }
    return true;
  }
  get is_pulling(): boolean {
    return this.pulling;
  }
  /** The number is let go. */
  pulled(): void {
    if (!this.pulling) return;
    this.pulling = false;
    this.use(this.ubbo.read_scene(this.source.text, this.source.name, this.lines(this.changes)), performance.now());
  }
  get can_undo(): boolean {
    return this.done.length > 0;
  }
  get can_redo(): boolean {
    return this.undone.length > 0;
  }
  undo(): void {
    this.step(this.done, this.undone);
  }
  redo(): void {
    this.step(this.undone, this.done);
  }
  private step(from: Step[], to: Step[]): void {
    const step = from.pop();
    if (step === undefined) return;
    to.push({ changes: this.changes });
    this.replace(step.changes);
  }
  /** Other changes at once, such as another viewer's. */
  replace(changes: ReadonlyMap<string, string>): void {
    const scene = this.ubbo.read_scene(this.source.text, this.source.name, this.lines(changes));
    if (scene === 0) return;
    this.before_changes = this.changes;
    this.changes = new Map(changes);
    this.pulling = false;
    this.use(scene, performance.now());
  }
  reset_all(): void {
    if (this.changes.size === 0) return;
    this.done.push({ changes: this.changes });
    this.undone.length = 0;
    this.replace(new Map());
  }
  /** The scene's text with all changes; "" when one has no place in it. */
  written(): string {
    const text = this.ubbo.written(this.source.text, this.source.name, this.lines(this.changes));
    if (text === '') {
      this.fault = this.ubbo.fault();
      this.fault_of = '';
    }
    return text;
  }

  choose(part: string): void {
    if (part === this.chosen || !this.told.parts.some((one) => one.id === part)) return;
    this.chosen = part;
    this.tell({ what: 'chosen' });
  }

  // ----- takes

  /** A scene with these changes instead; to be freed by whoever asked. 0 when it does not read. */
  scene_with(changes: ReadonlyMap<string, string>): number {
    return this.ubbo.read_scene(this.source.text, this.source.name, this.lines(changes));
  }
  /** What counted before the last change. */
  get before(): ReadonlyMap<string, string> {
    return this.before_changes;
  }
  get now_scene(): number {
    return this.scene;
  }

  /** How a take comes out on a scene; with fewer steps while a number is being pulled. */
  trace(scene: number, take: Take, which: readonly number[]): Trace | undefined {
    return trace_of(this.ubbo, scene, take, which, this.pulling);
  }

  keep(take: Take, name: string, meant: string): Take {
    const notes = [`# label = ${one_line(meant || name)}`];
    const expected = expectation(take.outcome, this.told);
    if (expected !== '') notes.push(`# expectation = ${expected}`);
    const kept: Take = {
      name: one_line(name),
      meant: one_line(meant),
      outcome: take.outcome,
      text: `${notes.join('\n')}\n${take.text}`,
      kept: true,
    };
    this.takes.push(kept);
    this.tell({ what: 'takes' });
    return kept;
  }
  forget(take: Take): void {
    const at = this.takes.indexOf(take);
    if (at >= 0) this.takes.splice(at, 1);
    this.tell({ what: 'takes' });
  }
}

function one_line(text: string): string {
  return text.replace(/[\r\n]+/g, ' ').trim();
}

function meant_of(text: string): string {
  return /^# label = (.*)$/m.exec(text)?.[1] ?? '';
}

// The cells that are no longer as the scene has them, as a take expects them.
function expectation(outcome: string, told: SceneTold): string {
  if (outcome === '') return '';
  const cells = JSON.parse(outcome) as Record<string, unknown>;
  return told.cells
    .map((cell) => [cell.name, cells[cell.name]] as const)
    .filter(([, value]) => typeof value === 'number' || typeof value === 'boolean')
    .map(([name, value]) => `${name} = ${typeof value === 'boolean' ? (value ? 'yes' : 'no') : value}`)
    .join(', ');
}
