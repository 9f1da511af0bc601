// The library as WebAssembly, called through its face for C (ubbo.h). Texts and lists of numbers go through memory
// that is asked for once and grows when a text needs more.

export interface Fault {
  file: string;
  line: number;
  column: number;
  found: string;
  takes: string;
  nearest: string;
}

export interface Decision {
  time: number;
  part: string;
  name: string;
  question: string;
  yes: boolean;
  sentence: string;
  caption: string;
}

export interface Reading {
  name: string;
  what: string;
  unit: string;
  part: string;
  usual: boolean;
  snap_points?: number[];
  /** At which values it is decided what becomes of a drag; as the value grows (1), shrinks (-1), either way (0). */
  thresholds?: { value: number; way: number }[];
}

export type Box = [number, number, number, number];

export interface Accessible {
  role: string;
  label: string;
  value_now?: number;
  value_min?: number;
  value_max?: number;
  value_text?: string;
  orientation?: string;
  checked?: boolean;
  pressed?: boolean;
  expanded?: boolean;
  selected?: boolean;
  disabled?: boolean;
  modal?: boolean;
  live?: 'polite' | 'assertive';
  keys?: string;
  actions?: string[];
}

export interface Part {
  id: string;
  kind: string;
  inside: string;
  box: Box;
  modal: boolean;
  focused: boolean;
  accessible: Accessible;
  pieces: { role: string; name: string; words: string; box: Box; item: number; on: boolean }[];
  stands: { as: 'start' | 'open' | 'closed'; box: Box }[];
  snap_points: { value: number; x: number; y: number }[];
}

export interface Setting {
  name: string;
  kind: 'number' | 'time' | 'flag' | 'choice' | 'text' | 'cell' | 'numbers' | 'transition' | 'length';
  unit: string;
  default: string;
  takes: string;
  meaning: string;
  min?: number;
  max?: number;
  whole?: boolean;
  choices?: string[];
  like?: string;
}

export interface Kind {
  words: string;
  means: string;
  role: string;
  keys: string;
  readings: { name: string; unit: string; means: string; usual: boolean }[];
  actions: { name: string; means: string }[];
}

export interface SceneTold {
  title: string;
  file: string;
  screen: { w: number; h: number; safe: Box; right_to_left: boolean };
  cells: { name: string; kind: string; value: string; choices?: string[] }[];
  parts: { id: string; kind: string; inside: string }[];
  kinds: Record<string, Kind>;
  images: string[];
  keys: string[];
}

/** The settings of a scene: what there are, and what each is. */
export interface SceneSettings {
  kinds: Record<string, Setting[]>;
  parts: {
    id: string;
    kind: string;
    line: number;
    values: string[];
    said: Record<string, number>;
    cells: Record<string, string>;
  }[];
  groups: { name: string; words: string; settings: Setting[]; values: string[] }[];
}

export interface Finding {
  rule: string;
  of: string;
  line: number;
  column: number;
  found: string;
  why: string;
  remedy: string;
  silenced?: string;
}

export interface Picture {
  numbers: Float64Array;
  texts: Uint8Array;
}

export const phases = { down: 0, move: 1, up: 2, cancel: 3, hover: 4, leave: 5 } as const;
export const tools = { finger: 0, stylus: 1, mouse: 2 } as const;

export interface Touch {
  time: number;
  contact: number;
  phase: number;
  x: number;
  y: number;
  tool: number;
  pressure: number;
  size: number;
}

export interface Act {
  time: number;
  kind: string;
  target: string;
  value: string;
}

type Exports = Record<string, (...numbers: number[]) => number>;

const utf8 = new TextEncoder();
const from_utf8 = new TextDecoder();

/** A piece of the module's memory that grows when more is asked of it. */
class Room {
  at = 0;
  constructor(
    private readonly module: Exports,
    public size: number,
  ) {
    this.at = module.malloc(size);
  }
  grow(size: number): void {
    if (size <= this.size) return;
    this.module.free(this.at);
    this.size = Math.max(size, 2 * this.size);
    this.at = this.module.malloc(this.size);
  }
}

export class Ubbo {
  private readonly call: Exports;
  private readonly memory: WebAssembly.Memory;
  private readonly out: Room;
  private readonly numbers: Room;
  private readonly texts: Room;
  private readonly given: Room[];
  private readonly count: number;

  /** From the module's bytes, or from the answer to a fetch of it: then it is compiled while it comes. */
  static async load(source: BufferSource | Response): Promise<Ubbo> {
    const memory: { now?: WebAssembly.Memory } = {};
    // Of the system interface the library uses nothing but what ends it on a defect of its own.
    const system: Record<string, (...numbers: number[]) => number> = {
      proc_exit: (code) => {
        throw new Error(`the module ended with ${code}`);
      },
      environ_sizes_get: (count, size) => {
        const view = new DataView(memory.now!.buffer);
        view.setUint32(count, 0, true);
        view.setUint32(size, 0, true);
        return 0;
      },
    };
    const compiled = !(source instanceof Response)
      ? await WebAssembly.compile(source)
      : source.headers.get('content-type') === 'application/wasm'
        ? await WebAssembly.compileStreaming(source)
        : await WebAssembly.compile(await source.arrayBuffer());
    const imports: WebAssembly.Imports = {};
    for (const { module, name } of WebAssembly.Module.imports(compiled)) {
      imports[module] ??= {};
      imports[module][name] = system[name] ?? (() => 0);
    }
    const { exports } = await WebAssembly.instantiate(compiled, imports);
    memory.now = exports.memory as WebAssembly.Memory;
    (exports as Exports)._initialize?.();
    return new Ubbo(exports as Exports, memory.now);
  }

  private constructor(exports: Exports, memory: WebAssembly.Memory) {
    this.call = exports;
    this.memory = memory;
    this.out = new Room(exports, 1 << 18);
    this.numbers = new Room(exports, 1 << 18);
    this.texts = new Room(exports, 1 << 14);
    this.given = [0, 1, 2].map(() => new Room(exports, 1 << 12));
    this.count = exports.malloc(8);
  }

  // Puts texts where the module finds them, each with a 0 behind.
  private give(...texts: string[]): number[] {
    return texts.map((text, i) => {
      const bytes = utf8.encode(text);
      this.given[i].grow(bytes.length + 1);
      const to = new Uint8Array(this.memory.buffer, this.given[i].at, bytes.length + 1);
      to.set(bytes);
      to[bytes.length] = 0;
      return this.given[i].at;
    });
  }

  private text(write: (into: number, room: number) => number): string {
    let size = write(this.out.at, this.out.size);
    if (size > this.out.size) {
      this.out.grow(size);
      size = write(this.out.at, this.out.size);
    }
    return from_utf8.decode(new Uint8Array(this.memory.buffer, this.out.at, size));
  }

  private list(write: (into: number, room: number) => number): Float64Array {
    let count = write(this.numbers.at, this.numbers.size / 8);
    if (count > this.numbers.size / 8) {
      this.numbers.grow(count * 8);
      count = write(this.numbers.at, this.numbers.size / 8);
    }
    return new Float64Array(this.memory.buffer, this.numbers.at, count);
  }

  /** What was wrong when something last failed. */
  fault(): Fault[] {
    return JSON.parse(this.text((into, room) => this.call.ubbo_fault(into, room)));
  }
  /** Bytes that the module has. */
  memory_size(): number {
    return this.memory.buffer.byteLength;
  }

  read_scene(text: string, name: string, changes: readonly string[] = []): number {
    const [t, n, c] = this.give(text, name, changes.join('\n'));
    return this.call.ubbo_scene_read(t, n, c);
  }
  free_scene(scene: number): void {
    this.call.ubbo_scene_free(scene);
  }
  told(scene: number): SceneTold {
    return JSON.parse(this.text((into, room) => this.call.ubbo_scene_told(scene, into, room)));
  }
  settings(scene: number): SceneSettings {
    return JSON.parse(this.text((into, room) => this.call.ubbo_scene_settings(scene, into, room)));
  }
  findings(scene: number): Finding[] {
    const text = this.text((into, room) => this.call.ubbo_scene_findings(scene, into, room));
    return text === '' ? [] : JSON.parse(text).findings;
  }
  /** The scene's text with changes written into it; "" when that cannot be done. */
  written(text: string, name: string, changes: readonly string[]): string {
    const [t, n, c] = this.give(text, name, changes.join('\n'));
    return this.text((into, room) => this.call.ubbo_scene_write(t, n, c, into, room));
  }

  begin(scene: number): number {
    return this.call.ubbo_run_begin(scene);
  }
  resume(scene: number, from: number, exactly: boolean): number {
    return this.call.ubbo_run_resume(scene, from, exactly ? 1 : 0);
  }
  begin_take(scene: number, take: string, name: string): number {
    const [t, n] = this.give(take, name);
    return this.call.ubbo_run_take(scene, t, n);
  }
  free_run(run: number): void {
    this.call.ubbo_run_free(run);
  }

  touch(run: number, t: Touch): boolean {
    return (
      this.call.ubbo_touch(run, t.time, t.contact, t.phase, t.x, t.y, t.tool, t.pressure, t.size) === 1
    );
  }
  act(run: number, a: Act): boolean {
    const [k, t, v] = this.give(a.kind, a.target, a.value);
    return this.call.ubbo_act(run, a.time, k, t, v) === 1;
  }
  advance(run: number, time: number): void {
    this.call.ubbo_advance(run, time);
  }
  play(run: number, time: number): void {
    this.call.ubbo_play(run, time);
  }
  ends(run: number): number {
    return this.call.ubbo_ends(run);
  }
  due(run: number): number {
    return this.call.ubbo_due(run);
  }
  settled(run: number): boolean {
    return this.call.ubbo_settled(run) === 1;
  }
  /** The size of its screen now, dp. */
  size(run: number): { w: number; h: number } {
    return { w: this.call.ubbo_width(run), h: this.call.ubbo_height(run) };
  }
  cursor(run: number): string {
    return this.text((into, room) => this.call.ubbo_cursor(run, into, room));
  }

  /** Good until the next call. */
  picture(run: number, dark: boolean, text_scale: number): Picture {
    let texts = 0;
    const draw = (): Float64Array =>
      this.list((into, room) => {
        const count = this.call.ubbo_picture(
          run, dark ? 1 : 0, text_scale, into, room, this.texts.at, this.texts.size, this.count,
        );
        texts = new DataView(this.memory.buffer).getUint32(this.count, true);
        return count;
      });
    let numbers = draw();
    if (texts > this.texts.size) {
      this.texts.grow(texts);
      numbers = draw();
    }
    return { numbers, texts: new Uint8Array(this.memory.buffer, this.texts.at, texts) };
  }

  readings(run: number): Reading[] {
    return JSON.parse(this.text((into, room) => this.call.ubbo_readings(run, into, room)));
  }
  /** Good until the next call. */
  values(run: number, which?: readonly number[]): Float64Array {
    if (which === undefined) return this.list((into, room) => this.call.ubbo_values(run, 0, 0, into, room));
    this.given[0].grow(4 * which.length);
    new Uint32Array(this.memory.buffer, this.given[0].at, which.length).set(which);
    return this.list((into, room) => this.call.ubbo_values(run, this.given[0].at, which.length, into, room));
  }
  value_text(run: number, reading: number): string {
    return this.text((into, room) => this.call.ubbo_value_text(run, reading, into, room));
  }
  /**
   * For points `step` dp apart, row by row from the top left: the part of the scene that a contact going down
   * there would be offered to, counted from 1; 0: none. Good until the next call.
   */
  hit_areas(run: number, step: number): Uint16Array {
    let count = this.call.ubbo_hit_areas(run, step, this.numbers.at, this.numbers.size / 2);
    if (count > this.numbers.size / 2) {
      this.numbers.grow(count * 2);
      count = this.call.ubbo_hit_areas(run, step, this.numbers.at, this.numbers.size / 2);
    }
    return new Uint16Array(this.memory.buffer, this.numbers.at, count);
  }
  /** Good until the next call. */
  boxes(run: number): Float64Array {
    return this.list((into, room) => this.call.ubbo_boxes(run, into, room));
  }
  decisions_count(run: number): number {
    return this.call.ubbo_decisions_count(run);
  }
  decisions(run: number, first = 0): Decision[] {
    return JSON.parse(this.text((into, room) => this.call.ubbo_decisions(run, first, into, room)) || '[]');
  }
  parts(run: number): Part[] {
    return JSON.parse(this.text((into, room) => this.call.ubbo_parts(run, into, room)) || '[]');
  }
  take(run: number): string {
    return this.text((into, room) => this.call.ubbo_take(run, into, room));
  }
  /** What the cells hold, as JSON. */
  cells(run: number): string {
    return this.text((into, room) => this.call.ubbo_cells(run, into, room));
  }
  outcome(run: number): string {
    return this.text((into, room) => this.call.ubbo_outcome(run, into, room));
  }

  /** A transition's way from 0 to 1; nothing where it does not read. */
  transition(text: string, count: number): { duration_ms: number; values: number[] } | undefined {
    const [t] = this.give(text);
    let ends = -1;
    const values = this.list((into) => {
      ends = this.call.ubbo_transition(t, into, count);
      return count;
    });
    return ends < 0 ? undefined : { duration_ms: ends / 1000, values: [...values] };
  }
}
