// The bench: the stage in the middle, its settings at one side, what was decided at the other, time below.
import { ActionsPanel } from './actions_panel';
import { Again } from './again';
import { Mirror } from './aria';
import { Beside } from './beside';
import { DecisionsPanel } from './decisions_panel';
import { button, el, ms } from './dom';
import { lay_out_stage, lay_out_tools, room_for, usual_overlays } from './layout';
import { Link } from './link';
import type { FromServer } from './link';
import { draw_finger, draw_ghost, draw_hit_areas, draw_parts, draw_take, hit_step, inks, Trails } from './overlays';
import type { Overlay } from './overlays';
import type { Fault, Picture } from '../../../npm/src/ubbo';
import { save_dialog } from './save';
import type { Given, Session } from './session';
import { SettingsPanel } from './settings_panel';
import { StageView } from './stage_view';
import { Strip } from './strip';
import { TakesPanel } from './takes_panel';

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
  /** When it was under the finger, ms since the page was asked for. */
  touchable = 0;
  /** How long the work of each frame took of late, ms. */
  readonly frames: number[] = [];
  readonly overlays = new Set<Overlay>(usual_overlays);
  private readonly trails = new Trails();
  dark = window.matchMedia('(prefers-color-scheme: dark)').matches;
  as_finger = true;
  text_scale = 1;
  follows_touch = true;
  private asked = 0;
  private timer = 0;
  private mirrored = 0;
  private drawn = 0;
  private fitted = { w: 0, h: 0 };
  private retold = false; // the decisions of the take are to be shown anew
  readonly said = el('p', { class: 'said', role: 'status' });
  readonly state = el('p', { class: 'state', role: 'status' });
  readonly clock = el('output', { class: 'clock', 'aria-label': 'Time of the take' });
  readonly play = button('Play', () => (this.again.playing ? this.again.pause() : this.again.play()), { class: 'main' });
  readonly back_to_live = button('Back to live', () => this.again.leave());
  readonly undo = button('Undo', () => this.session.undo());
  readonly redo = button('Redo', () => this.session.redo());
  readonly save = button('Save…', () => save_dialog(this.session, this.link, (words) => this.say(words)));
  readonly reset = button('Reset all', () => this.session.reset_all());
  readonly frame_a = el('figure', { class: 'device a', hidden: true });
  readonly frame_b = el('figure', { class: 'device' });
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
      void this.takes.sweep(key, setting);
    });
    this.mirror = new Mirror(session);
    const find = (name: string): CanvasImageSource | undefined => this.image(name);
    const size = (): { w: number; h: number } => this.size();
    this.stage = new StageView(
      { picture: () => this.picture(), size, over: (canvas) => this.draw_over(canvas) }, find,
      el('canvas', { class: 'stage', 'aria-hidden': true }),
    );
    this.stage_a = new StageView(
      { picture: () => this.picture_a(), size, over: (canvas) => draw_finger(canvas, this.trails, inks[this.dark ? 'dark' : 'day'], () => this.threshold(), this.overlays) }, find,
      el('canvas', { class: 'stage', 'aria-hidden': true }),
    );
    lay_out_stage(this, root);
    session.on_given = (given) => this.given(given);
    session.may_touch = () => this.link === undefined || this.link.turn !== 'others';
    if (session.source.served) this.link = new Link((message) => this.hear(message), () => this.tell_state());
    session.listen((event) => this.happened(event.what));
    for (const view of [this.stage, this.stage_a]) view.listen(this.hands(), () => this.as_finger);
    this.load_images();
    void document.fonts.ready.then(() => this.wake());
    new ResizeObserver(() => this.fit()).observe(root);
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'hidden') this.let_go();
      else this.wake();
    });
    window.addEventListener('keydown', (event) => this.key(event));
    if (window.matchMedia('(prefers-reduced-motion: reduce)').matches) this.reduce(true);
    this.set_dark(this.dark);
    this.tell_state();
    this.fit();
    // The stage is seen first, and then all that stands around it.
    this.stage.draw();
    this.touchable = performance.now();
    window.setTimeout(() => {
      this.tab_of = lay_out_tools(this, root);
      this.choose_readings();
      this.fit();
    });
  }

  // ----- the page

  private tab_of: (name: string) => void = () => undefined;
  tab(name: string): void {
    this.tab_of(name);
    this.wake();
  }

  set_dark(on: boolean): void {
    this.dark = on;
    document.documentElement.dataset.look = on ? 'dark' : 'day';
    this.wake();
  }
  reduce(on: boolean): void {
    const names = this.session.setting('screen.reduced_motion')?.setting.choices ?? [];
    this.session.set('screen.reduced_motion', on ? names[1] : undefined);
  }
  set_beside(on: boolean): void {
    if (on) this.beside.begin();
    else this.beside.end();
    this.frame_a.hidden = !this.beside.on;
    this.frame_b.classList.toggle('b', this.beside.on);
    this.fit();
  }

  // As it is shown, which may have been turned since.
  private size(): { w: number; h: number } {
    const { session, again } = this;
    return session.ubbo.size(again.shown && again.shown_run !== 0 ? again.shown_run : session.live);
  }

  private fit(): void {
    const { w, h, most } = room_for(this.frame_b.parentElement!, this.beside.on ? 2 : 1);
    for (const view of [this.stage, this.stage_a]) view.fit(w, h, most);
    this.fitted = this.size();
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
        ? `${told_fault(wrong)}${session.fault.length > 1 ? ` And ${session.fault.length - 1} more.` : ''} The last good scene stays.`
        : link?.turn === 'others'
          ? `${others}Someone else is touching; yours waits its turn.`
          : again.shown
            ? `${again.take?.kept ? `"${again.take.name}"` : 'The last touch'} again${again.before !== undefined ? ': solid as it goes now, dashed as it went before' : ''}.`
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
    if (what === 'scene' || what === 'pull') {
      if (what === 'scene') this.choose_readings();
      if (this.again.take === undefined && session.last !== undefined) this.again.take = session.last;
      if (this.again.take !== undefined) {
        this.again.refresh();
        if (!this.again.playing) this.again.play(0);
      }
      this.link?.change(session.changed);
    }
    if (what === 'scene') {
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
    const which = this.strip.choose(this.session.readings, this.session.chosen);
    if (which.join() !== this.again.which.join()) this.strip.begin();
    this.again.which = which;
  }

  private again_changed(): void {
    this.retold = true;
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
    return Number(this.session.setting('feel.drag_threshold')?.value ?? 0);
  }

  private draw_over(canvas: CanvasRenderingContext2D): void {
    const { session, again } = this;
    const ink = inks[this.dark ? 'dark' : 'day'];
    const run = again.shown && again.shown_run !== 0 ? again.shown_run : session.live;
    const parts = this.overlays.has('places') || this.overlays.has('snap_points')
      ? session.ubbo.parts(run) : [];
    if (this.overlays.has('areas')) draw_hit_areas(canvas, session.ubbo.hit_areas(run, hit_step), session.told.parts, this.size(), ink);
    draw_parts(canvas, parts, session.told, this.size(), ink, this.overlays);
    if (again.shown && again.now !== undefined) draw_ghost(canvas, session.told, again.now, again.before, again.time, ink);
    if (again.shown && again.take !== undefined) draw_take(canvas, again.take, again.time, ink.heather, this.overlays);
    else draw_finger(canvas, this.trails, ink, () => this.threshold(), this.overlays);
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
    if (this.retold) {
      this.retold = false;
      this.decisions.compare();
      this.decisions.at(again.time);
    }
    if (again.shown) again.go(); // what is shown is at its time, and of its size
    const { w, h } = this.size();
    if (w !== this.fitted.w || h !== this.fitted.h) this.fit();
    this.stage.draw();
    if (beside.on) this.stage_a.draw();
    // Of a touch under way every third frame does.
    this.drawn = (this.drawn + 1) % 3;
    if (this.drawn === 0 || !on || again.now !== undefined) this.strip.draw();
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

// Where a fault is, what was found, and what is expected, as far as that is short.
function told_fault(wrong: Fault): string {
  const at = wrong.line > 0 ? `:${wrong.line}:${wrong.column}` : '';
  const instead = wrong.nearest !== '' ? `; nearest known: ${wrong.nearest}` : wrong.takes === '' ? '' : `; takes ${wrong.takes}`;
  return `${wrong.file}${at}: found ${wrong.found}${instead.length > 200 ? `${instead.slice(0, 200)}…` : instead}.`;
}
