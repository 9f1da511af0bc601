// The stage as it begins, seen before the library is there: the picture comes with the scene.
import { el } from './dom';
import { room_for, stage_place, usual_overlays } from './layout';
import type { Source } from './session';
import { StageView } from './stage_view';

/** Draws it where the bench will, and returns once it has been seen. */
export async function first_look(source: Source, root: HTMLElement): Promise<void> {
  const { first } = source;
  if (first === undefined) return;
  const dark = window.matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.look = dark ? 'dark' : 'day';
  const texts = new TextEncoder().encode(first.texts);
  const numbers = Float64Array.from(dark ? first.dark : first.day);
  const view = new StageView(
    { picture: () => ({ numbers, texts }), size: () => first }, () => undefined, el('canvas', { class: 'stage', 'aria-hidden': true }),
  );
  const device = el('figure', { class: 'device' }, view.canvas);
  const state = el('p', { class: 'state', role: 'status' }, 'The library is being loaded.');
  stage_place(root, new Set(usual_overlays), () => undefined, [device], [state, el('p', { class: 'said' })]);
  const { w, h, most } = room_for(device.parentElement!, 1);
  view.fit(w, h, most);
  // In its own letters, where these come soon.
  const letters = Promise.all(['400 12px Inter', '600 12px Inter'].map((font) => document.fonts.load(font)));
  await Promise.race([letters, new Promise((late) => window.setTimeout(late, 80))]);
  view.draw();
  void letters.then(() => view.draw(), () => undefined);
  await new Promise((seen) => requestAnimationFrame(() => window.setTimeout(seen)));
  performance.mark('first picture');
}
