// A transition drawn beside its words, with handles to pull: the two points of a Bezier curve, a spring's settling
// time and overshoot, or how long another curve takes.
import { el } from './dom';
import type { Ubbo } from '../../../npm/src/ubbo';

const width = 236;
const height = 96;
const left = 8;
const right = 228;
const low = 82; // where 0 is drawn
const high = 44; // where 1 is drawn

// As CSS defines its keywords.
const keywords: Record<string, [number, number, number, number]> = {
  linear: [0, 0, 1, 1],
  ease: [0.25, 0.1, 0.25, 1],
  'ease-in': [0.42, 0, 1, 1],
  'ease-out': [0, 0, 0.58, 1],
  'ease-in-out': [0.42, 0, 0.58, 1],
};

interface Handle {
  x: number; // on the drawing
  y: number;
  name: string;
  /** The words when it stands at another place. */
  pulled(x: number, y: number): string;
}

const two = (value: number): string => String(Math.round(value * 100) / 100);

function handles_of(words: string, duration_ms: number): Handle[] {
  const time_at = (x: number): number =>
    Math.max(20, Math.round((((x - left) / (right - left)) * Math.max(duration_ms, 1)) / 10) * 10);
  const bezier = /^\s*cubic-bezier\(\s*([-\d.]+)[,\s]+([-\d.]+)[,\s]+([-\d.]+)[,\s]+([-\d.]+)\s*\)(.*)$/.exec(words);
  const keyword = /^\s*(linear|ease-in-out|ease-in|ease-out|ease)(?![-\w(])(.*)$/.exec(words);
  if (bezier !== null || keyword !== null) {
    const at = bezier !== null ? [1, 2, 3, 4].map((i) => Number(bezier[i])) : [...keywords[keyword![1]]];
    const rest = bezier !== null ? bezier[5] : keyword![2];
    const place = (i: number): { x: number; y: number } => ({
      x: left + at[i] * (right - left),
      y: low - at[i + 1] * (low - high),
    });
    return [0, 2].map((i) => ({
      ...place(i),
      name: i === 0 ? 'first point' : 'second point',
      pulled(x, y) {
        const next = [...at];
        next[i] = Math.max(0, Math.min(1, (x - left) / (right - left)));
        next[i + 1] = Math.max(-1, Math.min(2, (low - y) / (low - high)));
        return `cubic-bezier(${next.map(two).join(', ')})${rest}`;
      },
    }));
  }
  const spring = /^\s*spring\(\s*settle\s+([\d.]+)\s*(ms|s)(?:\s*,\s*overshoot\s+([\d.]+)\s*%)?\s*\)(.*)$/.exec(words);
  if (spring !== null) {
    const settle = Number(spring[1]) * (spring[2] === 's' ? 1000 : 1);
    const overshoot = Number(spring[3] ?? 0);
    return [
      {
        x: left + (right - left) * 0.8,
        y: low - (1 + overshoot / 100) * (low - high),
        name: 'settling time and overshoot',
        pulled(x, y) {
          const next = Math.max(20, Math.round((settle * ((x - left) / ((right - left) * 0.8))) / 10) * 10);
          const over = Math.max(0, Math.min(60, Math.round(((low - y) / (low - high) - 1) * 100)));
          return `spring(settle ${next}ms${over > 0 ? `, overshoot ${over}%` : ''})${spring[4]}`;
        },
      },
    ];
  }
  const timed = /^(.*?)([\d.]+)\s*(ms|s)\s*$/.exec(words);
  if (timed !== null && !words.includes('after'))
    return [{ x: right, y: high, name: 'duration', pulled: (x) => `${timed[1]}${time_at(x)}ms` }];
  return [];
}

/** A drawing of `words` that calls `pull` with other words while a handle is pulled, and `done` when it is let go. */
export function motion_drawing(
  ubbo: Ubbo,
  words: string,
  pull: (words: string) => void,
  done: () => void,
): SVGSVGElement | undefined {
  const way = ubbo.transition(words, 89);
  if (way === undefined) return undefined;
  const make = (name: string, attributes: Record<string, string | number>): SVGElement => {
    const made = document.createElementNS('http://www.w3.org/2000/svg', name);
    for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, String(value));
    return made;
  };
  const svg = make('svg', { viewBox: `0 0 ${width} ${height}`, class: 'motion', role: 'group' }) as SVGSVGElement;
  svg.setAttribute('aria-label', `${words}, drawn`);
  const line = make('polyline', { class: 'way' });
  const base = make('path', { class: 'base', d: `M${left} ${low}H${right}M${left} ${high}H${right}` });
  const time = make('text', { x: right, y: 92, class: 'time' });
  const arms = make('path', { class: 'arms' });
  svg.append(base, arms, line, time);
  let now = words;
  let shown = way;
  const y_of = (value: number): number => low - value * (low - high);
  const show = (): void => {
    const { values } = shown;
    line.setAttribute(
      'points',
      values.map((v, i) => `${(left + ((right - left) * i) / (values.length - 1)).toFixed(1)},${y_of(v).toFixed(1)}`).join(' '),
    );
    time.textContent = shown.duration_ms >= 1e3 ? `${two(shown.duration_ms / 1000)} s` : `${Math.round(shown.duration_ms)} ms`;
  };
  show();
  let handles = handles_of(now, shown.duration_ms);
  const points = handles.map((handle, i) => {
    const point = make('circle', { r: 6, class: 'handle', tabindex: 0, role: 'slider', 'aria-label': handle.name });
    point.setAttribute('aria-valuetext', now);
    const take = (next: string): void => {
      const changed = ubbo.transition(next, 89);
      if (changed === undefined) return;
      now = next;
      shown = changed;
      show();
      place();
      pull(now);
    };
    let from: Handle | undefined;
    point.addEventListener('pointerdown', (event) => {
      (event.target as Element).setPointerCapture((event as PointerEvent).pointerId);
      from = handles_of(now, shown.duration_ms)[i];
      event.preventDefault();
    });
    point.addEventListener('pointermove', (event) => {
      if (from === undefined) return;
      const box = svg.getBoundingClientRect();
      const e = event as PointerEvent;
      take(from.pulled(((e.clientX - box.left) / box.width) * width, ((e.clientY - box.top) / box.height) * height));
    });
    const end = (): void => {
      if (from !== undefined) done();
      from = undefined;
    };
    point.addEventListener('pointerup', end);
    point.addEventListener('pointercancel', end);
    point.addEventListener('keydown', (event) => {
      const steps: Record<string, [number, number]> = {
        ArrowLeft: [-4, 0], ArrowRight: [4, 0], ArrowUp: [0, -2], ArrowDown: [0, 2],
      };
      const step = steps[(event as KeyboardEvent).key];
      if (step === undefined) return;
      const here = handles_of(now, shown.duration_ms)[i];
      if (here !== undefined) take(here.pulled(here.x + step[0], here.y + step[1]));
      done();
      event.preventDefault();
    });
    svg.append(point);
    return point;
  });
  const place = (): void => {
    handles = handles_of(now, shown.duration_ms);
    points.forEach((point, i) => {
      const handle = handles[i];
      if (handle === undefined) return;
      point.setAttribute('cx', String(handle.x));
      point.setAttribute('cy', String(handle.y));
      point.setAttribute('aria-valuetext', now);
    });
    arms.setAttribute(
      'd',
      handles.length === 2
        ? `M${left} ${low}L${handles[0].x} ${handles[0].y}M${right} ${high}L${handles[1].x} ${handles[1].y}`
        : '',
    );
  };
  place();
  return svg;
}

export const hint = (): HTMLElement => el('span', { class: 'quiet' }, 'pull the round handles, or move them by arrow keys');
