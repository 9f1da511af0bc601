// The page: what stands where, for a desk and for a phone.
import type { Bench } from './bench';
import { button, el, replace, toggle } from './dom';
import { overlay_names } from './overlays';
import type { Overlay } from './overlays';

const speeds: [string, number][] = [['1', 1], ['1/4', 0.25], ['1/10', 0.1]];

/** What is shown over the stage unless it is said. */
export const usual_overlays: readonly Overlay[] = ['touch', 'threshold'];

/** The stage, which is seen first: what may be shown over it, devices, and words below. */
export function stage_place(
  root: HTMLElement, shown: ReadonlySet<Overlay>, show: (name: Overlay, on: boolean) => void, devices: HTMLElement[], below: HTMLElement[],
): void {
  replace(root, el(
    'main', { 'aria-label': 'Stage' },
    el('div', { class: 'stages' }, el(
      'div', { class: 'group over', role: 'group', 'aria-label': 'Shown over the stage' },
      ...(Object.entries(overlay_names) as [Overlay, string][]).map(([name, words]) => toggle(words, shown.has(name), (on) => show(name, on))),
    ), ...devices),
    ...below,
  ));
}

/** How large a stage may be of so many beside each other, CSS px, and how many of these are a dp at most. */
export function room_for(place: HTMLElement, count: number): { w: number; h: number; most: number } {
  const phone = window.matchMedia('(max-width: 900px)').matches;
  return {
    w: (place.clientWidth - (phone ? 0 : 132)) / count - (phone ? 0 : 34),
    h: place.clientHeight - (phone ? 0 : count > 1 ? 36 : 14),
    most: phone ? 4 : 1.5,
  };
}

export function lay_out_stage(bench: Bench, root: HTMLElement): void {
  bench.frame_b.append(el('figcaption', {}, 'B: now'), bench.stage.canvas, bench.mirror.root);
  bench.frame_a.append(el('figcaption', {}, 'A: kept'), bench.stage_a.canvas);
  const show = (name: Overlay, on: boolean): void => {
    if (on) bench.overlays.add(name);
    else bench.overlays.delete(name);
    bench.wake();
  };
  stage_place(root, bench.overlays, show, [bench.frame_a, bench.frame_b], [bench.state, bench.said]);
}

/** All that stands around it; what returns shows one of the tabs. */
export function lay_out_tools(bench: Bench, root: HTMLElement): (name: string) => void {
  const { session } = bench;
  const reduced = toggle('Less motion', bench.session.value_of('screen.reduced_motion') !== undefined, (on) => bench.reduce(on), 'as people set it on their phone');
  const head = el(
    'header', {},
    el('h1', {}, hexagon(), el('span', {}, 'Ubbo'), el('span', { class: 'title' }, session.told.title)),
    el('div', { class: 'group', role: 'group', 'aria-label': 'Changes' }, bench.undo, bench.redo, bench.reset, bench.save),
    el(
      'div', { class: 'group', role: 'group', 'aria-label': 'The screen' },
      sizes(bench), text_sizes(bench),
      toggle('Dark', bench.dark, (on) => bench.set_dark(on)),
      toggle('Right to left', session.told.screen.right_to_left, (on) => session.set('screen.right_to_left', on ? 'true' : undefined)),
      reduced,
      toggle('Mouse', false, (on) => (bench.as_finger = !on), 'the mouse counts as a mouse, which hovers, not as a finger'),
    ),
  );
  const panels: [string, HTMLElement][] = [
    ['Decisions', bench.decisions.root], ['Takes', bench.takes.root], ['Actions', bench.actions.root],
  ];
  const tabs = el('div', { class: 'tabs', role: 'tablist', 'aria-label': 'What is shown here' });
  const shown: { name: string; panel: HTMLElement; made: HTMLElement }[] = [];
  const show = (name: string): void => {
    for (const one of shown) {
      one.panel.hidden = one.name !== name;
      one.made.setAttribute('aria-selected', String(one.name === name));
      one.made.tabIndex = one.name === name ? 0 : -1;
    }
  };
  const right = el('aside', { class: 'panel', 'aria-label': 'What happened' }, tabs);
  for (const [name, panel] of panels) {
    const made = button(name, () => bench.tab(name), { role: 'tab', id: `tab-${name}`, 'aria-controls': `panel-${name}` });
    made.addEventListener('keydown', (event) => {
      const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
      if (by === 0) return;
      const at = panels.findIndex(([one]) => one === name);
      const next = panels[(at + by + panels.length) % panels.length][0];
      bench.tab(next);
      shown.find((one) => one.name === next)!.made.focus();
    });
    panel.id = `panel-${name}`;
    panel.setAttribute('role', 'tabpanel');
    panel.tabIndex = 0;
    shown.push({ name, panel, made });
    tabs.append(made);
    right.append(panel);
  }
  const beside = toggle('A beside B', false, (on) => bench.set_beside(on), 'keeps the settings of now as A; the same finger goes on both');
  const foot = el(
    'footer', { 'aria-label': 'Time' },
    el(
      'div', { class: 'group', role: 'group', 'aria-label': 'Play the take' },
      bench.play,
      ...speeds.map(([words, speed], i) => {
        const made = button(words, () => {
          bench.again.speed = speed;
          for (const other of foot.querySelectorAll('.speed')) other.setAttribute('aria-pressed', String(other === made));
        }, { class: 'speed toggle', 'aria-pressed': String(i === 0), 'aria-label': `Speed ${words}` });
        return made;
      }),
      button('◂', () => bench.again.step(-1), { 'aria-label': 'One frame back' }),
      button('▸', () => bench.again.step(1), { 'aria-label': 'One frame on' }),
      bench.clock,
      bench.back_to_live,
      beside,
      button('Start over', () => {
        bench.again.leave();
        session.restart();
      }, { title: 'the stage as the scene says it is at first' }),
      toggle('Follow touch', true, (on) => (bench.follows_touch = on), 'chooses the part that was touched'),
    ),
    bench.strip.canvas,
  );
  const handle = el(
    'details', { class: 'phone' },
    el('summary', { 'aria-label': 'Essentials' }, hexagon()),
    el(
      'div', { class: 'essentials' },
      button('Again', () => bench.again.play(0)),
      button('Again, slowly', () => {
        bench.again.speed = 0.25;
        bench.again.play(0);
      }),
      button('Start over', () => session.restart()),
      button('Back', () => session.act('back')),
      toggle('Dark', bench.dark, (on) => bench.set_dark(on)),
      toggle('Finger', true, (on) => {
        if (on) bench.overlays.add('touch');
        else bench.overlays.delete('touch');
        bench.wake();
      }),
    ),
  );
  root.prepend(head, bench.settings.root);
  root.append(right, foot, handle);
  show('Decisions');
  return show;
}


function sizes(bench: Bench): HTMLSelectElement {
  const { session } = bench;
  const { w, h } = session.told.screen;
  const sizes = [[w, h], [320, 640], [384, 800], [432, 900], [480, 960], [h, w]];
  const list = el('select', { 'aria-label': 'Size of the screen' },
    ...sizes.map(([a, b], i) => el('option', { value: `${a}x${b}` }, i === 0 ? `${a} × ${b} dp, as it says` : `${a} × ${b} dp`)));
  list.addEventListener('change', () => {
    const [a, b] = list.value.split('x');
    const own = a === String(w) && b === String(h);
    session.set('screen.width', own ? undefined : a, true);
    session.set('screen.height', own ? undefined : b, true);
    session.pulled();
  });
  return list;
}

function text_sizes(bench: Bench): HTMLSelectElement {
  const list = el('select', { 'aria-label': 'Size of text' },
    ...[1, 1.3, 1.6, 2].map((scale) => el('option', { value: scale }, scale === 1 ? 'Text as usual' : `Text × ${scale}`)));
  list.addEventListener('change', () => {
    bench.text_scale = Number(list.value);
    bench.wake();
  });
  return list;
}

function hexagon(): SVGSVGElement {
  const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  svg.setAttribute('viewBox', '-12 -12 24 24');
  svg.setAttribute('class', 'hexagon');
  svg.setAttribute('aria-hidden', 'true');
  const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
  path.setAttribute('d', 'M0-11 9.5-5.5v11L0 11-9.5 5.5v-11Z');
  svg.append(path);
  return svg;
}
