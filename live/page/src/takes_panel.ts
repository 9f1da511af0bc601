// Takes at hand: kept with a name and what was meant, all run after every change, swept over a number, and asked of a
// hand one by one.
import { button, el, ms, number_text, replace } from './dom';
import type { Setting } from '../../../npm/src/ubbo';
import type { Session, Take } from './session';
import type { Again } from './again';
import { Recording } from './recording';

export class TakesPanel {
  readonly root = el('section', { class: 'takes', 'aria-label': 'Takes' });
  private readonly list = el('ul', { class: 'list' });
  private readonly name = el('input', { type: 'text', placeholder: 'Name', 'aria-label': 'Name of the take' });
  private readonly meant = el('input', { type: 'text', placeholder: 'What was meant', 'aria-label': 'What was meant by the touch' });
  private readonly keeps = button('Keep last touch', () => this.keep());
  private readonly swept = el('div', { class: 'sweep', role: 'status' });
  private readonly firsts = new Map<Take, string>(); // how they came out at first
  private readonly came = new Map<Take, { outcome: string; fault: string; other: boolean }>(); // … and of late
  private planned = 0;

  constructor(
    private readonly session: Session,
    private readonly again: Again,
    private readonly kept: (take: Take) => void,
  ) {
    const recording = new Recording(session, (take) => this.kept(take));
    this.root.append(
      el('div', { class: 'keep' }, this.name, this.meant, this.keeps),
      recording.root,
      this.swept,
      this.list,
    );
    session.listen(({ what }) => {
      if (what === 'takes') {
        this.show();
        this.plan(0);
      }
      if (what === 'take') this.keeps.disabled = false;
      if (what === 'scene') this.plan();
    });
    this.keeps.disabled = true;
    this.show();
    this.plan(400);
  }

  private keep(): void {
    const { last, takes } = this.session;
    if (last === undefined) return;
    const name = this.name.value.trim() || `touch ${takes.filter((take) => take.name.startsWith('touch ')).length + 1}`;
    const kept = this.session.keep(last, name, this.meant.value);
    this.name.value = this.meant.value = '';
    this.kept(kept);
  }

  // All run again once the number has been left alone for a moment, so that pulling it stays quick.
  private plan(after = 120): void {
    window.clearTimeout(this.planned);
    this.planned = window.setTimeout(() => this.run_all(), after);
  }

  // One take after another, so that nothing waits for all of them.
  private run_all(next = 0): void {
    const take = this.session.takes[next];
    if (take === undefined) {
      this.show();
      return;
    }
    const now = this.outcome(take, this.session.now_scene);
    this.came.set(take, { ...now, other: now.fault === '' && now.outcome !== this.first(take) });
    this.planned = window.setTimeout(() => this.run_all(next + 1));
  }

  private outcome(take: Take, scene: number): { outcome: string; fault: string } {
    const { ubbo } = this.session;
    const run = ubbo.begin_take(scene, take.text, take.name);
    if (run === 0) return { outcome: '', fault: ubbo.fault()[0]?.found ?? 'it does not fit the scene' };
    ubbo.play(run, -1);
    const outcome = ubbo.cells(run);
    ubbo.free_run(run);
    return { outcome, fault: '' };
  }

  private first(take: Take): string {
    let known = this.firsts.get(take);
    if (known === undefined) {
      const scene = this.session.scene_with(new Map());
      known = scene === 0 ? '' : this.outcome(take, scene).outcome;
      this.session.ubbo.free_scene(scene);
      this.firsts.set(take, known);
    }
    return known;
  }

  show(): void {
    const { session } = this;
    const rows = session.takes.map((take) => {
      const now = this.came.get(take);
      const fault = now?.fault ?? '';
      const state = now === undefined ? '' : fault !== '' ? 'does not fit' : now.other ? 'another outcome' : 'same outcome';
      const open = button(take.name, () => {
        this.again.follow(take);
        this.again.play(0);
      }, { class: 'open', title: take.meant || 'plays it on the stage' });
      const differs = now?.other ? difference(this.first(take), now.outcome) : '';
      return el(
        'li', { class: fault !== '' ? 'wrong' : now?.other ? 'other' : 'same' },
        open,
        el('span', { class: 'state', title: fault }, state),
        button('forget', () => session.forget(take), { 'aria-label': `Forget ${take.name}`, class: 'reset' }),
        el('span', { class: 'quiet' }, fault || differs || take.meant),
      );
    });
    if (rows.length === 0)
      rows.push(el('li', { class: 'quiet' }, 'None is kept. Touch the stage, then keep the touch: it runs again after each change.'));
    const left_out = session.source.takes_left_out;
    if (left_out > 0) rows.push(el('li', { class: 'quiet' }, `${left_out} more in the folder are left out: the page takes 16 MB of takes.`));
    replace(this.list, ...rows);
  }

  private sweeping = 0; // counts the sweeps, so that a new one ends the one before

  /** Runs all takes, or the last touch, over values of one number, and draws where the outcome changes. */
  async sweep(key: string, setting: Setting): Promise<void> {
    const { session } = this;
    const takes = session.takes.length > 0 ? session.takes : session.last === undefined ? [] : [session.last];
    if (takes.length === 0) {
      replace(this.swept, el('p', { class: 'quiet' }, 'A sweep runs the kept takes, or the last touch, over a number: touch the stage first.'));
      return;
    }
    const present = Number(session.value_of(key) ?? session.setting(key)?.value ?? 0);
    const from = Math.max(setting.min ?? 0, 0);
    const to = Math.min(setting.max ?? 100, Math.max(4 * Math.abs(present), Number(setting.default) * 4, setting.whole ? 8 : 1));
    const count = setting.whole ? Math.min(40, Math.round(to - from) + 1) : 40;
    const values = Array.from({ length: count }, (_, i) => from + ((to - from) * i) / Math.max(1, count - 1))
      .map((value) => (setting.whole ? Math.round(value) : Number(value.toPrecision(4))));
    const began = performance.now();
    const changed = new Map(session.changed);
    const known: string[][] = takes.map(() => []);
    const outcomes: number[][] = [];
    const turn = ++this.sweeping;
    let rested = began;
    for (const value of values) {
      const scene = session.scene_with(new Map([...changed, [key, String(value)]]));
      const row: number[] = [];
      for (const [i, take] of takes.entries()) {
        const outcome = scene === 0 ? '' : this.outcome(take, scene).outcome;
        if (scene !== 0 && !known[i].includes(outcome)) known[i].push(outcome);
        row.push(scene === 0 ? -1 : known[i].indexOf(outcome));
        if (performance.now() - rested < 12) continue;
        // The stage stays under the finger meanwhile.
        const done = Math.round((100 * (outcomes.length * takes.length + i + 1)) / (values.length * takes.length));
        replace(this.swept, el('p', { class: 'quiet' }, `${key}: ${done} % of ${values.length} values over ${takes.length} take${takes.length === 1 ? '' : 's'}`));
        await new Promise((resolve) => window.setTimeout(resolve));
        rested = performance.now();
        if (turn === this.sweeping) continue;
        session.ubbo.free_scene(scene);
        return;
      }
      session.ubbo.free_scene(scene);
      outcomes.push(row);
    }
    const took = performance.now() - began;
    const cells = takes.map((take, i) =>
      el(
        'div', { class: 'lane' },
        el('span', { class: 'name' }, take.name),
        el('span', { class: 'bars' }, ...values.map((value, k) => {
          const which = outcomes[k][i];
          const bar = button('', () => session.set(key, String(value)), {
            class: `bar o${which < 0 ? 'x' : which % 5}`,
            'aria-label': `${take.name} at ${number_text(value)} ${setting.unit}: ${which < 0 ? 'not taken' : `outcome ${which + 1}`}`,
            title: `${number_text(value)} ${setting.unit}: ${which < 0 ? 'not taken' : short(known[i][which])}`,
          });
          if (Math.abs(value - present) <= (to - from) / count / 2) bar.classList.add('present');
          return bar;
        })),
      ));
    replace(
      this.swept,
      el('p', {}, el('b', {}, key), ` from ${number_text(from)} to ${number_text(to)}${setting.unit === '' ? '' : ` ${setting.unit}`}, now ${number_text(present)}; one colour is one outcome`),
      ...cells,
      el('p', { class: 'quiet' }, `${values.length} values, ${takes.length} take${takes.length === 1 ? '' : 's'}, in ${ms(took * 1000)}. A bar sets its value.`),
    );
  }
}

const short = (outcome: string): string => outcome.replace(/[{}"]/g, '').replaceAll(',', ', ').replaceAll(':', ' = ');

/** What cells hold that hold something else in another outcome: "frames = 7, not 6". */
export function difference(first: string, now: string): string {
  if (first === '' || now === '' || first === now) return '';
  const a = JSON.parse(first) as Record<string, unknown>;
  const b = JSON.parse(now) as Record<string, unknown>;
  return Object.keys(b)
    .filter((name) => JSON.stringify(a[name]) !== JSON.stringify(b[name]))
    .map((name) => `${name} = ${JSON.stringify(b[name])}, not ${JSON.stringify(a[name])}`)
    .join('; ');
}
