// The stage under the finger: a canvas, the browser's pointers, and one frame for each of the display's while
// something moves.
import { draw } from '../../../npm/src/picture';
import type { Images } from '../../../npm/src/picture';
import { phases, tools } from '../../../npm/src/ubbo';
import type { Picture } from '../../../npm/src/ubbo';

export interface StageShown {
  /** The picture to be drawn now. */
  picture(): Picture;
  size(): { w: number; h: number };
  /** Draws over the picture, in dp. */
  over?(canvas: CanvasRenderingContext2D): void;
}

export interface StageTouched {
  touch(phase: number, contact: number, x: number, y: number, tool: number, pressure: number, size: number, at: number): void;
  wheel(x: number, y: number, dx: number, dy: number, unit: 'dp' | 'line' | 'page', zooms: boolean): void;
  cursor(): string;
}

export class StageView {
  readonly canvas: HTMLCanvasElement;
  /** How long the last frame's drawing took, ms. */
  worked = 0;
  private readonly context: CanvasRenderingContext2D;
  private scale = 1;

  constructor(
    private readonly shown: StageShown,
    private readonly images: Images,
    canvas: HTMLCanvasElement,
  ) {
    this.canvas = canvas;
    this.context = this.canvas.getContext('2d', { alpha: false })!;
  }

  /** Fits the stage into so many CSS px. */
  fit(width: number, height: number, most = 1.5): void {
    const size = this.shown.size();
    this.scale = Math.max(0.2, Math.min(width / size.w, height / size.h, most));
    const density = window.devicePixelRatio || 1;
    const w = Math.round(size.w * this.scale * density);
    const h = Math.round(size.h * this.scale * density);
    this.canvas.style.width = `${size.w * this.scale}px`;
    this.canvas.style.height = `${size.h * this.scale}px`;
    if (this.canvas.width !== w) this.canvas.width = w;
    if (this.canvas.height !== h) this.canvas.height = h;
  }

  draw(): void {
    const from = performance.now();
    const density = this.canvas.width / this.shown.size().w;
    this.context.setTransform(density, 0, 0, density, 0, 0);
    draw(this.context, this.shown.picture(), this.images);
    this.context.setTransform(density, 0, 0, density, 0, 0);
    this.shown.over?.(this.context);
    this.worked = performance.now() - from;
  }

  place(event: { clientX: number; clientY: number }): { x: number; y: number } {
    const box = this.canvas.getBoundingClientRect();
    return { x: (event.clientX - box.left) / this.scale, y: (event.clientY - box.top) / this.scale };
  }

  /** Hands on what the browser's pointers do. `as_finger`: a mouse counts as a finger, and hovers over nothing. */
  listen(touched: StageTouched, as_finger: () => boolean): void {
    const down = new Set<number>();
    const tool_of = (event: PointerEvent): number =>
      event.pointerType === 'pen' ? tools.stylus : event.pointerType === 'mouse' && !as_finger() ? tools.mouse : tools.finger;
    const give = (event: PointerEvent, phase: number): void => {
      const { x, y } = this.place(event);
      touched.touch(
        phase, event.pointerId, x, y, tool_of(event), event.pressure,
        event.pointerType === 'touch' ? event.width / this.scale : 0, event.timeStamp,
      );
    };
    const canvas = this.canvas;
    canvas.addEventListener('pointerdown', (event) => {
      if (event.button !== 0) return;
      canvas.setPointerCapture(event.pointerId);
      down.add(event.pointerId);
      give(event, phases.down);
      event.preventDefault();
    });
    canvas.addEventListener('pointermove', (event) => {
      if (down.has(event.pointerId)) {
        const coalesced = event.getCoalescedEvents?.() ?? [];
        for (const one of coalesced.length > 0 ? coalesced : [event]) give(one, phases.move);
      } else if (event.pointerType !== 'touch' && !as_finger()) {
        give(event, phases.hover);
        canvas.style.cursor = touched.cursor();
      }
    });
    const end = (phase: number) => (event: PointerEvent) => {
      if (!down.delete(event.pointerId)) return;
      give(event, phase);
    };
    canvas.addEventListener('pointerup', end(phases.up));
    canvas.addEventListener('pointercancel', end(phases.cancel));
    canvas.addEventListener('lostpointercapture', end(phases.cancel));
    canvas.addEventListener('pointerleave', (event) => {
      if (event.pointerType !== 'touch' && !as_finger() && !down.has(event.pointerId)) give(event, phases.leave);
    });
    canvas.addEventListener(
      'wheel',
      (event) => {
        const { x, y } = this.place(event);
        const unit = event.deltaMode === 1 ? 'line' : event.deltaMode === 2 ? 'page' : 'dp';
        const by = unit === 'dp' ? 1 / this.scale : 1;
        touched.wheel(x, y, event.deltaX * by, event.deltaY * by, unit, event.ctrlKey);
        event.preventDefault();
      },
      { passive: false },
    );
    canvas.addEventListener('contextmenu', (event) => event.preventDefault());
  }
}
