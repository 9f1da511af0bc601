// Guided recording: the page asks a hand for gestures, at random, so often each, and keeps what it did with a label:
// what tuning needs, from one's own users.
import { button, el, replace } from './dom';
import type { Part } from '../../../npm/src/ubbo';
import type { Session, Take } from './session';

interface Ask {
  words: string;
  label: string;
}

const each = 10;

/** What may be asked of the parts in sight. */
export function asks_of(parts: Part[], chosen: string): Ask[] {
  const asks: Ask[] = [];
  for (const part of parts) {
    if (chosen !== '' && part.id !== chosen) continue;
    const name = part.accessible.label || part.id;
    const { value_min: min, value_max: max } = part.accessible;
    if (part.accessible.role === 'slider' && min !== undefined && max !== undefined)
      for (const share of [0.3, 0.7]) {
        const value = Math.round(min + (max - min) * share);
        asks.push({ words: `Drag "${name}" to ${value}`, label: `drag ${part.id} to ${value}` });
      }
    if (part.accessible.role === 'button') asks.push({ words: `Tap "${name}"`, label: `tap ${part.id}` });
    if (part.kind === 'swipe-row') asks.push({ words: `Swipe "${name}" open to the left`, label: `swipe ${part.id} left` });
    if (part.kind === 'list') asks.push({ words: `Scroll "${name}", starting on a row`, label: `scroll ${part.id}` });
    if (part.kind === 'pad' && name !== '') asks.push({ words: `Double tap "${name}"`, label: `double tap ${part.id}` });
    if (part.kind === 'carousel') asks.push({ words: `Swipe "${name}" to the next one`, label: `next in ${part.id}` });
    if (part.kind === 'sheet') asks.push({ words: `Pull "${name}" to its highest place`, label: `raise ${part.id}` });
    if (part.accessible.role === 'switch') asks.push({ words: `Switch "${name}" over`, label: `switch ${part.id}` });
  }
  return asks;
}

export class Recording {
  readonly root = el('div', { class: 'recording' });
  private left: Ask[] = [];
  private count = 0;
  private now: Ask | undefined;
  private made: Take | undefined;

  constructor(
    private readonly session: Session,
    private readonly kept: (take: Take) => void,
  ) {
    session.listen(({ what }) => {
      if (what !== 'take' || this.now === undefined) return;
      this.made = session.last;
      this.show();
    });
    this.show();
  }

  private begin(): void {
    const { session } = this;
    const all = session.ubbo.parts(session.live);
    const own = asks_of(all, session.chosen);
    const asks = own.length > 0 ? own : asks_of(all, '').slice(0, 6);
    this.left = asks.flatMap((ask) => Array.from({ length: each }, () => ask));
    for (let i = this.left.length - 1; i > 0; --i) {
      const j = Math.floor(Math.random() * (i + 1));
      [this.left[i], this.left[j]] = [this.left[j], this.left[i]];
    }
    this.count = this.left.length;
    this.next();
  }

  private next(): void {
    this.now = this.left.pop();
    this.made = undefined;
    if (this.now !== undefined) this.session.restart();
    this.show();
  }

  private keep(): void {
    if (this.made === undefined || this.now === undefined) return;
    const number = this.count - this.left.length;
    this.kept(this.session.keep(this.made, `${this.now.label} ${number}`, this.now.label));
    this.next();
  }

  private show(): void {
    if (this.now === undefined) {
      const done = this.count > 0 ? el('p', { class: 'quiet' }, `${this.count} gestures asked; those you kept are above.`) : undefined;
      replace(
        this.root, done,
        button('Record gestures, guided', () => this.begin(), { title: `asks for gestures on the chosen part, ${each} of each, in random order` }),
      );
      return;
    }
    replace(
      this.root,
      el('p', { class: 'ask', role: 'status' }, this.now.words),
      el('p', { class: 'quiet' }, `${this.count - this.left.length} of ${this.count}${this.made !== undefined ? ': done. Was that it?' : ''}`),
      button('Keep it', () => this.keep(), { disabled: this.made === undefined, class: 'main' }),
      button('Once more', () => {
        this.made = undefined;
        this.session.restart();
        this.show();
      }),
      button('Skip', () => this.next()),
      button('Stop', () => {
        this.now = undefined;
        this.left = [];
        this.show();
      }),
    );
  }
}
