// What the library decided and why, in sentences: as it falls, and of a take on the settings of before beside those
// of now.
import { el, ms, replace } from './dom';
import type { Decision } from '../../../npm/src/ubbo';
import type { Again } from './again';
import type { Session } from './session';

const most = 400;

/** The longest list of decisions that both have in the same order: true where one of them is in it. */
export function in_both(a: readonly Decision[], b: readonly Decision[]): [boolean[], boolean[]] {
  const same = (x: Decision, y: Decision): boolean => x.name === y.name && x.part === y.part && x.sentence === y.sentence;
  const n = Math.min(a.length, most);
  const m = Math.min(b.length, most);
  const table = Array.from({ length: n + 1 }, () => new Uint16Array(m + 1));
  for (let i = n - 1; i >= 0; --i)
    for (let j = m - 1; j >= 0; --j)
      table[i][j] = same(a[i], b[j]) ? table[i + 1][j + 1] + 1 : Math.max(table[i + 1][j], table[i][j + 1]);
  const left = a.map(() => false);
  const right = b.map(() => false);
  for (let i = 0, j = 0; i < n && j < m; ) {
    if (same(a[i], b[j])) left[i++] = right[j++] = true;
    else if (table[i + 1][j] >= table[i][j + 1]) ++i;
    else ++j;
  }
  return [left, right];
}

export class DecisionsPanel {
  readonly root = el('section', { class: 'decisions', 'aria-label': 'Decisions' });
  private readonly list = el('ol', { class: 'told', 'aria-live': 'off' });
  private readonly said = el('p', { class: 'sum' });
  private first = 0; // how many of the live ones are shown
  private shown: Decision[] | undefined; // those of a take

  constructor(
    private readonly session: Session,
    private readonly again: Again,
  ) {
    this.root.append(this.said, this.list);
  }

  private item(decision: Decision, mark = ''): HTMLElement {
    const go = el(
      'button',
      { type: 'button', class: `decision ${decision.yes ? 'yes' : 'no'} ${mark}`, title: decision.name, 'data-time': decision.time },
      el('span', { class: 'when' }, ms(decision.time)),
      el('b', {}, `${decision.part === '' ? 'stage' : decision.part}: `),
      decision.sentence,
    );
    go.addEventListener('click', () => {
      if (decision.part !== '') this.session.choose(decision.part);
      if (this.again.now !== undefined) this.again.seek(decision.time);
    });
    return el('li', {}, go);
  }

  clear(): void {
    this.first = 0;
    this.shown = undefined;
    this.list.className = 'told';
    replace(this.list);
    this.said.textContent = '';
  }

  /** Of the touch under way: those that have fallen since. */
  live(): void {
    const { session } = this;
    const count = session.ubbo.decisions_count(session.live);
    if (count < this.first || this.shown !== undefined) this.clear();
    if (count === this.first) return;
    for (const decision of session.ubbo.decisions(session.live, this.first)) {
      this.list.append(this.item(decision));
      if (this.list.childElementCount > most) this.list.firstElementChild!.remove();
    }
    this.first = count;
    this.said.textContent = `${count} decision${count === 1 ? '' : 's'} in this touch`;
    this.list.scrollTop = this.list.scrollHeight;
  }

  /** Of a take, as it comes out now and as it came out before. */
  compare(): void {
    const { now, before } = this.again;
    if (now === undefined) return;
    if (this.shown === now.decisions) return;
    this.first = -1;
    this.shown = now.decisions;
    if (before === undefined) {
      this.list.className = 'told';
      replace(this.list, ...now.decisions.slice(0, most).map((decision) => this.item(decision)));
      this.said.textContent = `${now.decisions.length} decision${now.decisions.length === 1 ? '' : 's'}, at rest after ${ms(now.ends)}`;
      return;
    }
    const [left, right] = in_both(before.decisions, now.decisions);
    const gone = left.filter((same) => !same).length;
    const come = right.filter((same) => !same).length;
    this.list.className = 'told two';
    this.said.textContent =
      (gone + come === 0 ? 'The same decisions as before' : `${come} new, ${gone} gone`) +
      (now.outcome === before.outcome ? '; the same outcome' : '; another outcome') +
      (now.ends === before.ends ? '.' : `; at rest after ${ms(now.ends)}, not ${ms(before.ends)}.`);
    const rows: HTMLElement[] = [el('li', { class: 'titles' }, el('span', {}, 'Before'), el('span', {}, 'Now'))];
    let i = 0;
    let j = 0;
    const b = before.decisions.slice(0, most);
    const n = now.decisions.slice(0, most);
    const cell = (decision: Decision | undefined, mark: string): HTMLElement =>
      decision === undefined ? el('span', { class: 'none' }) : this.item(decision, mark).firstElementChild as HTMLElement;
    while (i < b.length || j < n.length) {
      if (i < b.length && j < n.length && left[i] && right[j]) {
        rows.push(el('li', { class: 'same' }, cell(b[i++], ''), cell(n[j++], '')));
        continue;
      }
      const from = i < b.length && !left[i] ? b[i++] : undefined;
      const to = j < n.length && !right[j] ? n[j++] : undefined;
      if (from === undefined && to === undefined) {
        if (i < b.length) ++i; // beyond what was compared
        if (j < n.length) ++j;
        continue;
      }
      rows.push(el('li', { class: 'other' }, cell(from, 'gone'), cell(to, 'come')));
    }
    replace(this.list, ...rows);
  }

  /** Marks those that have been made by the time that is shown. */
  at(time: number): void {
    if (this.list.closest('[hidden]') !== null) return;
    let newest: Element | undefined;
    let changed = false;
    for (const item of this.list.getElementsByClassName('decision')) {
      const made = Number((item as HTMLElement).dataset.time) <= time + 500;
      if (item.classList.contains('later') === made) {
        item.classList.toggle('later', !made);
        changed = true;
      }
      if (made) newest = item;
    }
    if (changed) newest?.scrollIntoView({ block: 'nearest' });
  }
}
