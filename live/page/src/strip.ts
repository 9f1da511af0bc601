// Readings over time with the finger below them: of a take from its beginning to its end, and while a touch is under
// way, of that. It is scrubbed by a finger, a mouse or the arrow keys.
import { el } from './dom';
import type { Reading } from '../../../npm/src/ubbo';
import type { Again } from './again';
import type { Session } from './session';
import type { Ink } from './overlays';

interface Contact {
  from: number;
  to: number;
}

/** When fingers were down in a take, µs. */
export function contacts_of(take: string): Contact[] {
  const open = new Map<string, number>();
  const all: Contact[] = [];
  let first: number | undefined;
  for (const line of take.split('\n')) {
    const [time, contact, phase] = line.split(',');
    if (line.startsWith('#') || Number.isNaN(Number(time))) continue;
    first ??= Number(time);
    const at = (Number(time) - first) * 1000;
    if (phase === 'down') open.set(contact, at);
    if (phase === 'up' || phase === 'cancel') {
      all.push({ from: open.get(contact) ?? at, to: at });
      open.delete(contact);
    }
  }
  return all;
}

export class Strip {
  readonly canvas = el('canvas', {
    class: 'strip', tabindex: 0, role: 'slider', 'aria-label': 'Time of the take', 'aria-valuemin': 0,
  });
  /** Of a touch under way: its values, frame by frame. */
  private live: { time: number; values: Float64Array }[] = [];
  private contacts: Contact[] = [];
  private take = '';

  constructor(
    private readonly session: Session,
    private readonly again: Again,
    private readonly ink: () => Ink & { ground: string },
  ) {
    const at = (event: PointerEvent): number => {
      const box = this.canvas.getBoundingClientRect();
      return ((event.clientX - box.left - this.left) / (box.width - this.left - 12)) * again.ends;
    };
    let held = false;
    this.canvas.addEventListener('pointerdown', (event) => {
      held = true;
      this.canvas.setPointerCapture(event.pointerId);
      again.playing = false;
      again.seek(at(event));
    });
    this.canvas.addEventListener('pointermove', (event) => held && again.seek(at(event)));
    this.canvas.addEventListener('pointerup', () => (held = false));
    this.canvas.addEventListener('pointercancel', () => (held = false));
    this.canvas.addEventListener('keydown', (event) => {
      const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 };
      if (!(event.key in steps || event.key === 'Home' || event.key === 'End')) return;
      again.playing = false; // who takes time in the hand holds it
      if (event.key in steps) again.step(steps[event.key]);
      else if (event.key === 'Home') again.seek(0);
      else again.seek(again.ends);
      event.preventDefault();
    });
  }

  private readonly left = 132;

  /** The readings of the chosen part that are worth a line; of those the first three that change are drawn. */
  choose(readings: Reading[], part: string): number[] {
    const own = readings.map((reading, i) => ({ reading, i })).filter(({ reading }) => reading.part === part);
    const usual = own.filter(({ reading }) => reading.usual);
    return (usual.length > 0 ? usual : own).slice(0, 8).map(({ i }) => i);
  }

  begin(): void {
    this.live = [];
  }
  add(time: number): void {
    if (this.live.length < 20_000) this.live.push({ time, values: this.session.ubbo.values(this.session.live, this.again.which).slice() });
  }

  draw(): void {
    const { canvas, again, session } = this;
    const density = window.devicePixelRatio || 1;
    const w = canvas.clientWidth;
    const h = canvas.clientHeight;
    if (canvas.width !== Math.round(w * density) || canvas.height !== Math.round(h * density)) {
      canvas.width = Math.round(w * density);
      canvas.height = Math.round(h * density);
    }
    const c = canvas.getContext('2d')!;
    const ink = this.ink();
    c.setTransform(density, 0, 0, density, 0, 0);
    c.fillStyle = ink.ground;
    c.fillRect(0, 0, w, h);
    const now = again.now;
    const ends = now !== undefined ? again.ends : Math.max(1, this.live[this.live.length - 1]?.time ?? 1);
    canvas.setAttribute('aria-valuemax', String(Math.round(ends / 1000)));
    canvas.setAttribute('aria-valuenow', String(Math.round(again.time / 1000)));
    canvas.setAttribute('aria-valuetext', `${Math.round(again.time / 1000)} ms of ${Math.round(ends / 1000)} ms`);
    const x_of = (time: number): number => this.left + (time / Math.max(1, ends)) * (w - this.left - 12);
    const foot = 18;
    if (again.take !== undefined && again.take.text !== this.take) {
      this.take = again.take.text;
      this.contacts = contacts_of(this.take);
    }
    c.font = '11px Inter, sans-serif';
    // A grid of round times.
    const each = [50, 100, 200, 500, 1000, 2000, 5000, 10000, 60000].find((step) => ends / 1000 / step < 12) ?? 600000;
    c.textAlign = 'center';
    for (let t = 0; t * 1000 <= ends; t += each) {
      c.fillStyle = ink.ink;
      c.globalAlpha = 0.12;
      c.fillRect(x_of(t * 1000), 0, 1, h - foot);
      c.globalAlpha = 0.75;
      if (x_of(t * 1000) < w - 40 || t === 0) c.fillText(t === 0 ? '0 ms' : `${t}`, x_of(t * 1000) + 2, h - 4);
      c.globalAlpha = 1;
    }
    if (again.which.length === 0) {
      c.fillStyle = ink.ink;
      c.textAlign = 'left';
      c.fillText('Touch the stage: what moves is followed here.', this.left, h / 2);
      return;
    }
    const series = (i: number, of: 'now' | 'before' | 'live'): { time: number; value: number }[] => {
      if (of === 'live') return this.live.map(({ time, values }) => ({ time, value: values[i] }));
      const trace = of === 'now' ? now : again.before;
      if (trace === undefined) return [];
      return trace.values.map((values, k) => ({ time: Math.min(k * trace.step, trace.ends), value: values[i] }));
    };
    const changes = (i: number): boolean =>
      (['now', 'before', 'live'] as const).some((of) => {
        const all = (of === 'live') === (now === undefined) ? series(i, of) : [];
        return all.some(({ value }) => Math.abs(value - all[0].value) > 1e-9);
      });
    const every = again.which.map((_, i) => i);
    const changing = every.filter(changes);
    const rows = (changing.length > 0 ? changing : every).slice(0, 3);
    const tall = (h - foot - 4) / rows.length;
    for (const contact of this.contacts) {
      if (now === undefined) break;
      c.fillStyle = ink.heather;
      c.globalAlpha = 0.14;
      c.fillRect(x_of(contact.from), 0, Math.max(2, x_of(contact.to) - x_of(contact.from)), h - foot);
      c.globalAlpha = 1;
    }
    rows.forEach((i, row) => {
      const told = session.readings[again.which[i]];
      if (told === undefined) return;
      const top = 4 + row * tall;
      const before = now !== undefined ? series(i, 'before') : [];
      const main = now !== undefined ? series(i, 'now') : series(i, 'live');
      let low = Infinity;
      let high = -Infinity;
      for (const { value } of [...main, ...before]) {
        low = Math.min(low, value);
        high = Math.max(high, value);
      }
      // The snap points between which it moves, and where it is decided between them; more would be a grating.
      const points = told.snap_points ?? [];
      const below = Math.max(...points.filter((point) => point <= low + 1e-9));
      const above = Math.min(...points.filter((point) => point >= high - 1e-9));
      const near = points.length > 0 ? 0 : (high - low || 1) * 0.5;
      low = Math.min(low, Number.isFinite(below) ? below : low);
      high = Math.max(high, Number.isFinite(above) ? above : high);
      const within = (value: number): boolean => value >= low - near - 1e-9 && value <= high + near + 1e-9;
      const few = <T>(all: T[]): T[] => (all.length > 12 ? [] : all);
      const snaps = few(points.filter(within));
      const thresholds = few((told.thresholds ?? []).filter(({ value }) => within(value)));
      for (const { value } of thresholds) {
        low = Math.min(low, value);
        high = Math.max(high, value);
      }
      if (!(high > low)) {
        low -= 0.5;
        high += 0.5;
      }
      const y_of = (value: number): number => top + 4 + (1 - (value - low) / (high - low)) * (tall - 10);
      c.strokeStyle = ink.moss;
      c.setLineDash([2, 3]);
      c.lineWidth = 1;
      for (const snap of snaps) {
        c.beginPath();
        c.moveTo(this.left, y_of(snap));
        c.lineTo(w - 12, y_of(snap));
        c.stroke();
      }
      // Where it is decided: with an arrow the way for which that counts.
      c.strokeStyle = c.fillStyle = ink.brick;
      c.setLineDash([6, 3]);
      for (const { value, way } of thresholds) {
        const y = y_of(value);
        c.beginPath();
        c.moveTo(this.left, y);
        c.lineTo(w - 12, y);
        c.stroke();
        for (const up of [1, -1]) {
          if (way === -up) continue;
          c.beginPath();
          c.moveTo(w - 12, y - 5 * up);
          c.lineTo(w - 15.5, y);
          c.lineTo(w - 8.5, y);
          c.fill();
        }
      }
      c.setLineDash([]);
      const line = (points: { time: number; value: number }[], colour: string, dash: number[]): void => {
        c.beginPath();
        points.forEach(({ time, value }, k) => (k === 0 ? c.moveTo(x_of(time), y_of(value)) : c.lineTo(x_of(time), y_of(value))));
        c.strokeStyle = colour;
        c.lineWidth = 2;
        c.setLineDash(dash);
        c.stroke();
        c.setLineDash([]);
      };
      line(before, ink.heather, [5, 4]);
      line(main, ink.honey, []);
      const at = now !== undefined
        ? main[Math.min(main.length - 1, Math.round(again.time / now.step))]?.value
        : main[main.length - 1]?.value;
      c.fillStyle = ink.ink;
      c.textAlign = 'left';
      c.font = '600 12px Inter, sans-serif';
      const what = told.name.startsWith(`${told.part}.`) ? told.what : told.name;
      c.fillText(fitted(c, what, this.left - 20), 10, top + tall / 2 - 2);
      c.font = '12px Inter, sans-serif';
      if (at !== undefined) c.fillText(fitted(c, `${plain(at)} ${told.unit}`, this.left - 20), 10, top + tall / 2 + 14);
      c.fillStyle = ink.ink;
      c.globalAlpha = 0.15;
      if (row > 0) c.fillRect(0, top - 1, w, 1);
      c.globalAlpha = 1;
    });
    if (now === undefined) return;
    // Each decision a small mark at the foot.
    for (const decision of now.decisions) {
      c.fillStyle = decision.yes ? ink.moss : ink.brick;
      c.beginPath();
      c.arc(x_of(decision.time), h - foot, 3, 0, 2 * Math.PI);
      c.fill();
    }
    c.fillStyle = ink.brick;
    c.fillRect(x_of(again.time) - 1, 0, 2, h - foot + 4);
  }
}

export function plain(value: number): string {
  return String(Math.round(value * 100) / 100);
}

function fitted(c: CanvasRenderingContext2D, words: string, room: number): string {
  if (c.measureText(words).width <= room) return words;
  let cut = words;
  while (cut.length > 1 && c.measureText(`${cut}…`).width > room) cut = cut.slice(0, -1);
  return `${cut}…`;
}
