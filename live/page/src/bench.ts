// The bench: the stage in the middle, its settings at one side, what was decided at the other, time below.
import { ActionsPanel } from './actions_panel';
import { Again } from './again';
import { Mirror } from './aria';
import { Beside } from './beside';
import { DecisionsPanel } from './decisions_panel';
import { button, el, ms, replace, toggle } from './dom';
import { Link } from './link';
import type { FromServer } from './link';
import { draw_finger, draw_ghost, draw_parts, inks, overlay_names, Trails } from './overlays';
import type { Overlay } from './overlays';
import type { Picture } from './module';
import { save_dialog } from './save';
import type { Given, Session, Take } from './session';
import { SettingsPanel } from './settings_panel';
import { StageView } from './stage_view';
import { Strip } from './strip';
import { TakesPanel } from './takes_panel';

const speeds: [string, number][] = [['1', 1], ['1/4', 0.25], ['1/10', 0.1]];

export class Bench {
  readonly again: Again;
  readonly beside: Beside;
  readonly strip: Strip;
  readonly decisions: DecisionsPanel;
  readonly takes: TakesPanel;
  readonly actions: ActionsPanel;
  readonly settings: SettingsPanel;
  readonly mirror: Mirror;
  readonly stage: StageView;
  readonly stage_a: StageView;
  readonly link: Link | undefined;
  /** How long the work of each frame took of late, ms. */
  readonly frames: number[] = [];
  private readonly overlays = new Set<Overlay>(['touch', 'threshold']);
  private readonly trails = new Trails();
  private dark = window.matchMedia('(prefers-color-scheme: dark)').matches;
  private as_finger = true;
  private text_scale = 1;
  private follows_touch = true;
  private asked = 0;
  private timer = 0;
  private mirrored = 0;
  private readonly said = el('p', { class: 'said', role: 'status' });
  private readonly state = el('p', { class: 'state', role: 'status' });
  private readonly clock = el('output', { class: 'clock', 'aria-label': 'Time of the take' });
  private readonly play = button('Play', () => (this.again.playing ? this.again.pause() : this.again.play()), { class: 'main' });
  private readonly back_to_live = button('Back to live', () => this.again.leave());
  private readonly undo = button('Undo', () => this.session.undo());
  private readonly redo = button('Redo', () => this.session.redo());
  private readonly save = button('Save…', () => save_dialog(this.session, this.link, (words) => this.say(words)));
  private readonly reset = button('Reset all', () => this.session.reset_all());
  private readonly frame_a = el('figure', { class: 'device a', hidden: true });
  private readonly frame_b = el('figure', { class: 'device' });
  private readonly images = new Map<string, HTMLImageElement>();

  constructor(
    readonly session: Session,
    root: HTMLElement,
  ) {
    this.again = new Again(session, () => this.again_changed());
    this.beside = new Beside(session);
    const ink = (): (typeof inks)['day'] & { ground: string } => ({
      ...inks[this.dark ? 'dark' : 'day'],
      ground: this.dark ? '#2E2739' : '#FDF9EF',
    });
    this.strip = new Strip(session, this.again, ink);
    this.decisions = new DecisionsPanel(session, this.again);
    this.takes = new TakesPanel(session, this.again, (take) => this.link?.keep(take.name, take.text));
    this.actions = new ActionsPanel(session);
    this.settings = new SettingsPanel(session, (key, setting) => {
      this.tab('Takes');
      this.takes.sweep(key, setting);
    });
    this.mirror = new Mirror(session);
    const find = (name: string): CanvasImageSource | undefined => this.image(name);
    const size = (): { w: number; h: number } => this.size();
    this.stage = new StageView(
      session.ubbo, { picture: () => this.picture(), size, over: (canvas) => this.draw_over(canvas) }, find,
      el('canvas', { class: 'stage', 'aria-hidden': true }),
    );
    this.stage_a = new StageView(
      session.ubbo, { picture: () => this.picture_a(), size, over: (canvas) => draw_finger(canvas, this.trails, inks[this.dark ? 'dark' : 'day'], this.threshold(), this.overlays) }, find,
      el('canvas', { class: 'stage', 'aria-hidden': true }),
    );
    this.lay_out(root);
    session.on_given = (given) => this.given(given);
    session.may_touch = () => this.link === undefined || this.link.turn !== 'others';
    if (session.source.served) this.link = new Link((message) => this.hear(message), () => this.tell_state());
    session.listen((event) => this.happened(event.what));
    for (const view of [this.stage, this.stage_a]) view.listen(this.hands(), () => this.as_finger);
    this.load_images();
    new ResizeObserver(() => this.fit()).observe(root);
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'hidden') this.let_go();
      else this.wake();
    });
    window.addEventListener('keydown', (event) => this.key(event));
    if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) this.reduce(true);
    this.choose_readings();
    this.set_dark(this.dark);
    this.tell_state();
    this.fit();
  }

  // ----- the page

  private readonly tabs: Record<string, HTMLElement> = {};
  private readonly tab_buttons: Record<string, HTMLButtonElement> = {};

  private lay_out(root: HTMLElement): void {
    const { session } = this;
    const reduced = toggle('Less motion', this.session.value_of('screen.reduced_motion') !== undefined, (on) => this.reduce(on), 'as people set it on their phone');
    const head = el(
      'header', {},
      el('h1', {}, hexagon(), el('span', {}, 'Ubbo'), el('span', { class: 'title' }, session.told.title)),
      el('div', { class: 'group', role: 'group', 'aria-label': 'Changes' }, this.undo, this.redo, this.reset, this.save),
      el(
        'div', { class: 'group', role: 'group', 'aria-label': 'The screen' },
        this.sizes(), this.text_sizes(),
        toggle('Dark', this.dark, (on) => this.set_dark(on)),
        toggle('Right to left', session.told.screen.right_to_left, (on) => session.set('screen.right_to_left', on ? 'true' : undefined)),
        reduced,
        toggle('Mouse', false, (on) => (this.as_finger = !on), 'the mouse counts as a mouse, which hovers, not as a finger'),
      ),
    );
    this.frame_b.append(el('figcaption', {}, 'B: now'), this.stage.canvas, this.mirror.root);
    this.frame_a.append(el('figcaption', {}, 'A: kept'), this.stage_a.canvas);
    const middle = el(
      'main', { 'aria-label': 'Stage' },
      el('div', { class: 'stages' }, el(
        'div', { class: 'group over', role: 'group', 'aria-label': 'Shown over the stage' },
        ...(Object.entries(overlay_names) as [Overlay, string][]).map(([name, words]) =>
          toggle(words, this.overlays.has(name), (on) => {
            if (on) this.overlays.add(name);
            else this.overlays.delete(name);
            this.wake();
          })),
      ), this.frame_a, this.frame_b),
      this.state,
      this.said,
    );
    const panels: [string, HTMLElement][] = [
      ['Decisions', this.decisions.root], ['Takes', this.takes.root], ['Actions', this.actions.root],
    ];
    const tabs = el('div', { class: 'tabs', role: 'tablist', 'aria-label': 'What is shown here' });
    const right = el('aside', { class: 'panel', 'aria-label': 'What happened' }, tabs);
    for (const [name, panel] of panels) {
      const made = button(name, () => this.tab(name), { role: 'tab', id: `tab-${name}`, 'aria-controls': `panel-${name}` });
      made.addEventListener('keydown', (event) => {
        const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
        if (by === 0) return;
        const at = panels.findIndex(([one]) => one === name);
        const next = panels[(at + by + panels.length) % panels.length][0];
        this.tab(next);
        this.tab_buttons[next].focus();
      });
      panel.id = `panel-${name}`;
      panel.setAttribute('role', 'tabpanel');
      panel.tabIndex = 0;
      this.tabs[name] = panel;
      this.tab_buttons[name] = made;
      tabs.append(made);
      right.append(panel);
    }
    const beside = toggle('A beside B', false, (on) => this.set_beside(on), 'keeps the settings of now as A; the same finger goes on both');
    const foot = el(
      'footer', { 'aria-label': 'Time' },
      el(
        'div', { class: 'group', role: 'group', 'aria-label': 'Play the take' },
        this.play,
        ...speeds.map(([words, speed], i) => {
          const made = button(words, () => {
            this.again.speed = speed;
            for (const other of foot.querySelectorAll('.speed')) other.setAttribute('aria-pressed', String(other === made));
          }, { class: 'speed toggle', 'aria-pressed': String(i === 0), 'aria-label': `Speed ${words}` });
          return made;
        }),
        button('◂', () => this.again.step(-1), { 'aria-label': 'One frame back' }),
        button('▸', () => this.again.step(1), { 'aria-label': 'One frame on' }),
        this.clock,
        this.back_to_live,
        beside,
        button('Start over', () => {
          this.again.leave();
          session.restart();
        }, { title: 'the stage as the scene says it is at first' }),
        toggle('Follow touch', true, (on) => (this.follows_touch = on), 'chooses the part that was touched'),
      ),
      this.strip.canvas,
    );
    const handle = el(
      'details', { class: 'handle' },
      el('summary', { 'aria-label': 'Essentials' }, hexagon()),
      el(
        'div', { class: 'essentials' },
        button('Again', () => this.again.play(0)),
        button('Again, slowly', () => {
          this.again.speed = 0.25;
          this.again.play(0);
        }),
        button('Start over', () => session.restart()),
        button('Back', () => session.act('back')),
        toggle('Dark', this.dark, (on) => this.set_dark(on)),
        toggle('Finger', true, (on) => {
          if (on) this.overlays.add('touch');
          else this.overlays.delete('touch');
          this.wake();
        }),
      ),
    );
    replace(root, head, this.settings.root, middle, right, foot, handle);
    this.tab('Decisions');
  }

  private tab(name: string): void {
    for (const [one, panel] of Object.entries(this.tabs)) {
      panel.hidden = one !== name;
      this.tab_buttons[one].setAttribute('aria-selected', String(one === name));
      this.tab_buttons[one].tabIndex = one === name ? 0 : -1;
    }
    this.wake();
  }

  private sizes(): HTMLSelectElement {
    const { session } = this;
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
  private text_sizes(): HTMLSelectElement {
    const list = el('select', { 'aria-label': 'Size of text' },
      ...[1, 1.3, 1.6, 2].map((scale) => el('option', { value: scale }, scale === 1 ? 'Text as usual' : `Text × ${scale}`)));
    list.addEventListener('change', () => {
      this.text_scale = Number(list.value);
      this.wake();
    });
    return list;
  }

  private set_dark(on: boolean): void {
    this.dark = on;
    document.documentElement.dataset.look = on ? 'dark' : 'day';
    this.wake();
  }
  private reduce(on: boolean): void {
    const group = this.session.told.groups.find((one) => one.name === 'screen');
    const names = group?.settings.find((setting) => setting.name === 'reduced_motion')?.choices ?? [];
    this.session.set('screen.reduced_motion', on ? names[1] : undefined);
  }
  private set_beside(on: boolean): void {
    if (on) this.beside.begin();
    else this.beside.end();
    this.frame_a.hidden = !this.beside.on;
    this.frame_b.classList.toggle('b', this.beside.on);
    this.fit();
  }

  private size(): { w: number; h: number } {
    // The screen may have been turned since.
    const at = this.session.told.screen;
    return { w: at.w, h: at.h };
  }

  private fit(): void {
    const place = this.frame_b.parentElement!;
    const count = this.beside.on ? 2 : 1;
    const phone = window.matchMedia('(max-width: 900px)').matches;
    const w = (place.clientWidth - (phone ? 0 : 132)) / count - (phone ? 0 : 34);
    const h = place.clientHeight - (phone ? 0 : this.beside.on ? 36 : 14);
    for (const view of [this.stage, this.stage_a]) view.fit(w, h, phone ? 4 : 1.5);
    this.wake();
  }

  private say(words: string): void {
    this.said.textContent = words;
  }

  private tell_state(): void {
    const { session, link, again } = this;
    const wrong = session.fault_of === '' ? session.fault[0] : undefined;
    this.state.classList.toggle('wrong', wrong !== undefined);
    const others = link !== undefined && link.viewers > 1 ? `${link.viewers} viewers. ` : '';
    this.state.textContent =
      wrong !== undefined
        ? `${wrong.file}${wrong.line > 0 ? `:${wrong.line}:${wrong.column}` : ''}: found ${wrong.found}${wrong.takes === '' ? '' : `; takes ${wrong.takes}`}. The last good scene stays.`
        : link?.turn === 'others'
          ? `${others}Someone else is touching; yours waits its turn.`
          : again.shown
            ? `${again.take?.name ?? 'The last touch'} again${again.before !== undefined ? ': solid as it goes now, dashed as it went before' : ''}.`
            : `${others}Live: touch it.`;
    this.undo.disabled = !session.can_undo;
    this.redo.disabled = !session.can_redo;
    this.reset.disabled = this.save.disabled = session.changed.size === 0;
    this.play.disabled = again.take === undefined;
    this.play.textContent = again.playing ? 'Pause' : 'Play again';
    this.back_to_live.hidden = !again.shown;
    this.clock.textContent = again.take === undefined ? '' : `${ms(again.time)} of ${ms(again.ends)}`;
  }

  // ----- what happens

  private happened(what: string): void {
    const { session } = this;
    if (what === 'scene') {
      this.choose_readings();
      if (session.last !== undefined || this.again.take !== undefined) {
        this.again.refresh();
        if (!this.again.playing) this.again.play(0);
      }
      this.link?.change(session.changed);
      this.load_images();
      this.fit();
    }
    if (what === 'take') {
      if (this.follows_touch) this.choose_touched();
      this.choose_readings();
      this.again.time = 0;
      this.again.follow(session.last);
      this.link?.rests();
    }
    if (what === 'chosen') {
      this.choose_readings();
      this.again.refresh();
    }
    if (what === 'decided' && !this.again.shown) {
      this.strip.begin();
      this.decisions.clear();
    }
    this.tell_state();
    this.wake();
  }

  private choose_touched(): void {
    const { session } = this;
    const decisions = session.ubbo.decisions(session.live);
    const parts = decisions.filter((one) => one.part !== '' && one.yes && !one.name.startsWith('hover'));
    const part = parts[parts.length - 1]?.part;
    if (part !== undefined) session.choose(part);
  }
  private choose_readings(): void {
    this.again.which = this.strip.choose(this.session.readings, this.session.chosen);
  }

  private again_changed(): void {
    this.decisions.compare();
    this.decisions.at(this.again.time);
    this.tell_state();
    this.wake();
  }

  private hands(): Parameters<StageView['listen']>[0] {
    const { session } = this;
    return {
      touch: (phase, contact, x, y, tool, pressure, size, at) => {
        if (phase === 0) {
          if (this.again.shown) this.again.leave();
          if (![...this.trails.ways.values()].some((way) => way.down)) this.trails.clear();
          // Nothing else has the keyboard while the stage is touched.
          if (document.activeElement instanceof HTMLElement && !this.mirror.root.contains(document.activeElement)) document.activeElement.blur();
          this.again.take = undefined;
          this.again.now = this.again.before = undefined;
        }
        this.trails.add(contact, phase, x, y, at);
        session.touch({ time: 0, contact, phase, x, y, tool, pressure, size }, at);
      },
      wheel: (x, y, dx, dy, unit, zooms) => {
        this.again.leave();
        this.again.take = undefined;
        this.again.now = this.again.before = undefined;
        session.act('wheel', `${round(x)} ${round(y)}`, `${round(dx)} ${round(dy)} ${unit}${zooms ? ' zoom' : ''}`);
      },
      cursor: () => session.ubbo.cursor(session.live),
    };
  }

  private key(event: KeyboardEvent): void {
    const at = event.target as HTMLElement;
    const writes = at instanceof HTMLInputElement || at instanceof HTMLSelectElement || at instanceof HTMLTextAreaElement;
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !writes) {
      if (event.shiftKey) this.session.redo();
      else this.session.undo();
      event.preventDefault();
    }
  }

  /** The page is hidden, as when the phone sleeps: fingers are no longer on it. */
  private let_go(): void {
    for (const [contact, way] of this.trails.ways) {
      const last = way.points[way.points.length - 1];
      if (!way.down || last === undefined) continue;
      way.down = false;
      this.session.touch({ time: 0, contact, phase: 3, x: last.x, y: last.y, tool: 0, pressure: 0, size: 0 }, performance.now());
    }
  }

  private given(given: Given): void {
    this.beside.give(given, performance.now());
    this.link?.give(given);
  }

  private hear(message: FromServer): void {
    const { session } = this;
    if (message.what === 'scene') {
      session.open(message.source);
      this.say(session.fault.length === 0 ? `${message.source.name} has been read anew.` : '');
    }
    if (message.what === 'given') {
      this.again.leave();
      for (const given of message.given) session.follow(given, performance.now());
    }
    if (message.what === 'changes') session.replace(new Map(message.changes));
    if (message.what === 'saved') this.say(`Written to ${message.name}.`);
    if (message.what === 'refused') {
      this.let_go();
      this.say(message.why);
    }
  }

  // ----- drawing

  private picture(): Picture {
    const { session, again } = this;
    const shown = again.shown ? again.picture(this.dark, this.text_scale) : undefined;
    return shown ?? session.ubbo.picture(session.live, this.dark, this.text_scale);
  }
  private picture_a(): Picture {
    const { again, beside } = this;
    return again.shown && again.take !== undefined
      ? beside.picture_at(again.take, again.time, this.dark, this.text_scale)
      : beside.picture(this.dark, this.text_scale);
  }
  private threshold(): number {
    const feel = this.session.told.groups.find((group) => group.name === 'feel');
    const at = feel?.settings.findIndex((setting) => setting.name === 'drag_threshold') ?? -1;
    return at < 0 ? 0 : Number(feel!.values[at]);
  }

  private draw_over(canvas: CanvasRenderingContext2D): void {
    const { session, again } = this;
    const ink = inks[this.dark ? 'dark' : 'day'];
    const parts = this.overlays.has('areas') || this.overlays.has('places') || this.overlays.has('snap_points')
      ? session.ubbo.parts(again.shown && again.shown_run !== 0 ? again.shown_run : session.live) : [];
    draw_parts(canvas, parts, session.told, ink, this.overlays);
    if (again.shown && again.now !== undefined) draw_ghost(canvas, session.told, again.now, again.before, again.time, ink);
    if (again.shown && again.take !== undefined) draw_take(canvas, again.take, again.time, ink.heather, this.overlays);
    else draw_finger(canvas, this.trails, ink, this.threshold(), this.overlays);
  }

  private image(name: string): CanvasImageSource | undefined {
    const found = this.images.get(name);
    return found !== undefined && found.complete && found.naturalWidth > 0 ? found : undefined;
  }
  private load_images(): void {
    for (const [name, address] of Object.entries(this.session.source.images)) {
      if (this.images.has(name)) continue;
      const image = new Image();
      image.onload = () => this.wake();
      image.src = address;
      this.images.set(name, image);
    }
  }

  // ----- frames

  /** Asks for a frame, if none is asked for. */
  wake(): void {
    if (this.asked !== 0) return;
    this.asked = requestAnimationFrame((now) => {
      this.asked = 0;
      this.frame(now);
    });
  }

  private frame(now: number): void {
    const from = performance.now();
    const { session, again, beside, link } = this;
    window.clearTimeout(this.timer);
    let on = session.frame(now);
    on = beside.frame(now) || on;
    on = again.frame(now) || on;
    if (!again.shown) {
      if (again.now === undefined) {
        this.strip.add(session.time_of(now));
        this.decisions.live();
      }
    }
    this.stage.draw();
    if (beside.on) this.stage_a.draw();
    this.strip.draw();
    this.actions.show(again.shown && again.shown_run !== 0 ? again.shown_run : session.live);
    // A screen reader needs no frames.
    if (!on || now - this.mirrored > 250) {
      this.mirrored = now;
      this.mirror.show(session.ubbo.parts(session.live), this.stage.canvas.clientWidth / this.size().w);
    }
    this.frames.push(performance.now() - from);
    if (this.frames.length > 600) this.frames.shift();
    if (on) {
      this.wake();
    } else {
      const wakes = session.wakes();
      if (wakes !== undefined) this.timer = window.setTimeout(() => this.wake(), Math.max(0, wakes - performance.now()) + 1);
      if (link?.turn === 'yours') link.rests();
    }
  }
}

const round = (value: number): number => Math.round(value * 100) / 100;

// The finger of a take at a time: its way so far.
function draw_take(canvas: CanvasRenderingContext2D, take: Take, time: number, colour: string, on: Set<Overlay>): void {
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
