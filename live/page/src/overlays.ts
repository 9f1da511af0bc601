// What is drawn over the stage: the finger with its trail and threshold, where parts may rest, stand and are touched,
// and where they went before.
import type { Part, SceneTold } from '../../../npm/src/ubbo';
import type { Take } from './session';
import type { Trace } from './trace';
import { Again } from './again';

export const overlay_names = {
  touch: 'Finger, trail',
  threshold: 'Threshold',
  snap_points: 'Snap points',
  places: 'Places',
  areas: 'Hit areas',
  safe: 'Safe area',
} as const;
export type Overlay = keyof typeof overlay_names;

export interface Ink {
  honey: string;
  heather: string;
  moss: string;
  brick: string;
  ink: string;
  /** What is written on the others. */
  paper: string;
}

export const inks = {
  day: { honey: '#B57A06', heather: '#76558F', moss: '#4B6A40', brick: '#B4472F', ink: '#2A2331', paper: '#FFFBF2' },
  dark: { honey: '#E2A83A', heather: '#B497CA', moss: '#96B786', brick: '#E28A6E', ink: '#F5EFDF', paper: '#211B29' },
};

export interface TrailPoint {
  x: number;
  y: number;
  time: number;
}

/** The way of each contact of late. */
export class Trails {
  readonly ways = new Map<number, { points: TrailPoint[]; down: boolean }>();

  add(contact: number, phase: number, x: number, y: number, time: number): void {
    if (phase === 0) this.ways.set(contact, { points: [], down: true });
    const way = this.ways.get(contact);
    if (way === undefined) return;
    way.points.push({ x, y, time });
    if (phase === 2 || phase === 3) way.down = false;
  }
  clear(): void {
    this.ways.clear();
  }
}

export function draw_finger(c: CanvasRenderingContext2D, trails: Trails, ink: Ink, threshold: () => number, on: Set<Overlay>): void {
  for (const { points, down } of trails.ways.values()) {
    const first = points[0];
    const last = points[points.length - 1];
    if (first === undefined) continue;
    if (on.has('touch')) {
      c.beginPath();
      for (const [i, point] of points.entries()) {
        if (i === 0) c.moveTo(point.x, point.y);
        else c.lineTo(point.x, point.y);
      }
      c.strokeStyle = ink.heather;
      c.globalAlpha = down ? 0.9 : 0.45;
      c.lineWidth = 2;
      c.setLineDash([]);
      c.stroke();
      if (down) {
        c.beginPath();
        c.arc(last.x, last.y, 14, 0, 2 * Math.PI);
        c.globalAlpha = 0.25;
        c.fillStyle = ink.heather;
        c.fill();
        c.globalAlpha = 1;
        c.lineWidth = 1.5;
        c.stroke();
      }
      c.globalAlpha = 1;
    }
    if (on.has('threshold') && down) {
      c.beginPath();
      c.arc(first.x, first.y, threshold(), 0, 2 * Math.PI);
      c.strokeStyle = ink.brick;
      c.lineWidth = 1;
      c.setLineDash([3, 3]);
      c.stroke();
      c.setLineDash([]);
    }
  }
}

// A word on a ground of its own, within the screen's width.
function label(c: CanvasRenderingContext2D, words: string, x: number, y: number, colour: string, ink: Ink, width: number): void {
  c.font = '600 10px Inter, sans-serif';
  c.textAlign = 'left';
  const wide = c.measureText(words).width;
  const left = Math.min(x, width - wide - 6);
  c.fillStyle = colour;
  c.globalAlpha = 0.92;
  c.fillRect(left, y, wide + 6, 14);
  c.globalAlpha = 1;
  c.fillStyle = ink.paper;
  c.fillText(words, left + 3, y + 10.5);
}

export function draw_parts(
  c: CanvasRenderingContext2D, parts: Part[], told: SceneTold, size: { w: number; h: number }, ink: Ink, on: Set<Overlay>,
): void {
  if (on.has('places'))
    for (const part of parts)
      for (const stand of part.stands) {
        const colour = stand.as === 'open' ? ink.moss : stand.as === 'start' ? ink.honey : ink.brick;
        c.strokeStyle = colour;
        c.lineWidth = 1.5;
        c.setLineDash(stand.as === 'open' ? [] : [5, 4]);
        c.strokeRect(...stand.box);
        c.setLineDash([]);
      }
  if (on.has('snap_points'))
    for (const part of parts)
      for (const point of part.snap_points) {
        c.beginPath();
        for (let i = 0; i < 6; ++i) {
          const turn = (Math.PI / 3) * i - Math.PI / 2;
          const x = point.x + 5 * Math.cos(turn);
          const y = point.y + 5 * Math.sin(turn);
          if (i === 0) c.moveTo(x, y);
          else c.lineTo(x, y);
        }
        c.closePath();
        c.strokeStyle = ink.moss;
        c.lineWidth = 1.5;
        c.stroke();
      }
  if (on.has('safe')) {
    const [left, top, right, bottom] = told.screen.safe;
    const { w, h } = size;
    c.fillStyle = ink.brick;
    c.globalAlpha = 0.18;
    c.fillRect(0, 0, w, top);
    c.fillRect(0, h - bottom, w, bottom);
    c.fillRect(0, top, left, h - top - bottom);
    c.fillRect(w - right, top, right, h - top - bottom);
    c.globalAlpha = 1;
    if (top + bottom + left + right > 0) label(c, `safe area: ${left}, ${top}, ${right}, ${bottom} dp`, 4, top + 2, ink.brick, ink, w);
  }
}

/** How far apart the points are that are asked for which part a press there is offered to, dp. */
export const hit_step = 2;

/** Which part a press is offered to, everywhere: tinted, with a line where that changes and the part's name. */
export function draw_hit_areas(
  c: CanvasRenderingContext2D, areas: Uint16Array, parts: SceneTold['parts'], size: { w: number; h: number }, ink: Ink,
): void {
  const across = Math.ceil(size.w / hit_step);
  const down = Math.ceil(size.h / hit_step);
  const tints = [ink.heather, ink.moss, ink.honey, ink.brick];
  const edges = new Path2D();
  const fills = tints.map(() => new Path2D());
  const first = new Map<number, { x: number; y: number }>();
  for (let y = 0; y < down; ++y) {
    let from = 0;
    for (let x = 0; x < across; ++x) {
      const at = areas[y * across + x];
      if (at !== 0 && !first.has(at)) first.set(at, { x: x * hit_step, y: y * hit_step });
      const ends = x + 1 === across;
      if (!ends && areas[y * across + x + 1] !== at) edges.rect((x + 1) * hit_step - 0.5, y * hit_step, 1, hit_step);
      if (ends || areas[y * across + x + 1] !== at) {
        if (at !== 0) fills[at % tints.length].rect(from * hit_step, y * hit_step, (x + 1 - from) * hit_step, hit_step);
        from = x + 1;
      }
      if (y + 1 < down && areas[(y + 1) * across + x] !== at) edges.rect(x * hit_step, (y + 1) * hit_step - 0.5, hit_step, 1);
    }
  }
  c.globalAlpha = 0.16;
  fills.forEach((path, i) => {
    c.fillStyle = tints[i];
    c.fill(path);
  });
  c.globalAlpha = 0.9;
  c.fillStyle = ink.ink;
  c.fill(edges);
  c.globalAlpha = 1;
  for (const [part, { x, y }] of first) label(c, parts[part - 1]?.id ?? '', x + 1, y + 1, ink.ink, ink, size.w);
}

/** Where parts went before, over where they go now: their ways, and an outline at the present moment. */
export function draw_ghost(
  c: CanvasRenderingContext2D, told: SceneTold, now: Trace, before: Trace | undefined, time: number, ink: Ink,
): void {
  if (before === undefined) return;
  const parts = now.boxes[0] === undefined ? 0 : now.boxes[0].length / 4;
  const centre = (boxes: Float64Array, part: number): [number, number] => [
    boxes[4 * part] + boxes[4 * part + 2] / 2,
    boxes[4 * part + 1] + boxes[4 * part + 3] / 2,
  ];
  const way = (trace: Trace, part: number, colour: string, dash: number[]): boolean => {
    let moved = false;
    let open = false;
    c.beginPath();
    let first: [number, number] | undefined;
    for (const boxes of trace.boxes) {
      if (boxes[4 * part + 2] < 0) {
        open = false;
        continue;
      }
      const [x, y] = centre(boxes, part);
      first ??= [x, y];
      moved ||= Math.hypot(x - first[0], y - first[1]) > 1;
      if (open) c.lineTo(x, y);
      else c.moveTo(x, y);
      open = true;
    }
    if (!moved) return false;
    c.strokeStyle = colour;
    c.lineWidth = 2;
    c.setLineDash(dash);
    c.stroke();
    c.setLineDash([]);
    return true;
  };
  const other = new Set<string>();
  for (let part = 0; part < parts; ++part)
    if (differs(now, before, part)) other.add(told.parts[part].id);
  for (let part = 0; part < parts; ++part) {
    // What is only carried along by something that goes another way is not drawn by itself.
    if (other.has(told.parts[part].id) && !other.has(told.parts[part].inside)) {
      way(before, part, ink.heather, [4, 4]);
      way(now, part, ink.honey, []);
      const then = before.boxes[Again.index(before, time)];
      const here = now.boxes[Again.index(now, time)];
      if (then[4 * part + 2] >= 0 && apart(then, here, part)) {
        c.strokeStyle = ink.heather;
        c.fillStyle = ink.heather;
        c.lineWidth = 1.5;
        c.setLineDash([5, 3]);
        c.globalAlpha = 0.14;
        c.fillRect(...box_of(then, part));
        c.globalAlpha = 1;
        c.strokeRect(...box_of(then, part));
        c.setLineDash([]);
      }
    }
  }
}

function box_of(boxes: Float64Array, part: number): [number, number, number, number] {
  return [boxes[4 * part], boxes[4 * part + 1], boxes[4 * part + 2], boxes[4 * part + 3]];
}

function apart(a: Float64Array, b: Float64Array, part: number): boolean {
  for (let i = 4 * part; i < 4 * part + 4; ++i) if (Math.abs(a[i] - b[i]) > 0.25) return true;
  return false;
}

/** Whether a part goes another way in one than in the other. */
export function differs(a: Trace, b: Trace, part: number): boolean {
  const count = Math.min(a.boxes.length, b.boxes.length);
  for (let i = 0; i < count; ++i) if (apart(a.boxes[i], b.boxes[i], part)) return true;
  return count > 0 && apart(a.boxes[a.boxes.length - 1], b.boxes[b.boxes.length - 1], part);
}

/** The finger of a take at a time: its way so far. */
export function draw_take(canvas: CanvasRenderingContext2D, take: Take, time: number, colour: string, on: Set<Overlay>): void {
  if (!on.has('touch')) return;
  const ways = new Map<string, { x: number; y: number }[]>();
  const down = new Set<string>();
  let first: number | undefined; // a take's time counts from its first event
  for (const line of take.text.split('\n')) {
    const [at, contact, phase, x, y] = line.split(',');
    if (line.startsWith('#') || Number.isNaN(Number(at))) continue;
    first ??= Number(at);
    if (!((Number(at) - first) * 1000 <= time) || !['down', 'move', 'up', 'cancel'].includes(phase)) continue;
    if (phase === 'down') ways.set(contact, []);
    ways.get(contact)?.push({ x: Number(x), y: Number(y) });
    if (phase === 'down') down.add(contact);
    if (phase === 'up' || phase === 'cancel') down.delete(contact);
  }
  for (const [contact, points] of ways) {
    canvas.beginPath();
    points.forEach(({ x, y }, i) => (i === 0 ? canvas.moveTo(x, y) : canvas.lineTo(x, y)));
    canvas.strokeStyle = colour;
    canvas.globalAlpha = down.has(contact) ? 0.9 : 0.35;
    canvas.lineWidth = 2;
    canvas.stroke();
    const last = points[points.length - 1];
    if (down.has(contact) && last !== undefined) {
      canvas.beginPath();
      canvas.arc(last.x, last.y, 14, 0, 2 * Math.PI);
      canvas.fillStyle = colour;
      canvas.globalAlpha = 0.3;
      canvas.fill();
      canvas.globalAlpha = 1;
      canvas.stroke();
    }
    canvas.globalAlpha = 1;
  }
}
