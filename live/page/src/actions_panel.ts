// Buttons for all that can be done to the chosen part and to the phone, and live readings: no test screen is needed.
import { button, el, replace } from './dom';
import type { Session } from './session';

export class ActionsPanel {
  readonly root = el('section', { class: 'actions', 'aria-label': 'Actions and readings' });
  private readonly calls = el('div', { class: 'buttons' });
  private readonly phone = el('div', { class: 'buttons' });
  private readonly cells = el('div', { class: 'cells' });
  private readonly readings = el('table', { class: 'readings' });
  private which: number[] = [];
  private built = '';

  constructor(private readonly session: Session) {
    this.root.append(
      el('h2', { class: 'small' }, 'Ask the chosen part to'), this.calls,
      el('h2', { class: 'small' }, 'Phone and keys'), this.phone,
      el('h2', { class: 'small' }, 'Values of the app'), this.cells,
      el('h2', { class: 'small' }, 'Live readings'), this.readings,
    );
    session.listen(({ what }) => {
      if (what === 'scene' || what === 'chosen') this.build();
    });
    window.setTimeout(() => this.build()); // the stage is seen first
  }

  private build(): void {
    const { session } = this;
    const { told } = session;
    const key = JSON.stringify([session.chosen, told.parts.map((part) => part.id), told.cells.map((cell) => cell.name)]);
    this.which = session.readings.map((_, i) => i).filter((i) => session.readings[i].part === session.chosen);
    replace(
      this.readings,
      ...this.which.map((i) =>
        el('tr', {}, el('th', { scope: 'row' }, session.readings[i].what), el('td', {}), el('td', { class: 'unit' }, session.readings[i].unit))),
    );
    if (key === this.built) return;
    this.built = key;
    const part = told.parts.find((one) => one.id === session.chosen);
    const actions = part === undefined ? [] : told.kinds[part.kind].actions;
    replace(
      this.calls,
      ...actions.map((action) => button(action.name, () => session.act('call', session.chosen, action.name), { title: action.means })),
      actions.length === 0 && el('p', { class: 'quiet' }, 'It does nothing by itself.'),
      button('remove', () => session.act('remove', session.chosen), { title: 'takes the part away' }),
      button('hide', () => session.act('hide', session.chosen)),
      button('show', () => session.act('show', session.chosen)),
      button('disable', () => session.act('disable', session.chosen)),
      button('enable', () => session.act('enable', session.chosen)),
    );
    const up = (): boolean => session.value_of('screen.safe.bottom') !== undefined;
    replace(
      this.phone,
      button('back', () => session.act('back')),
      button('turn the screen', () => {
        // As it is now, not as the scene says.
        this.turned = !this.turned;
        const { w, h } = told.screen;
        session.act('turn', '', this.turned ? `${h}x${w}` : `${w}x${h}`);
      }),
      button('keyboard up or down', () => session.set('screen.safe.bottom', up() ? undefined : '280')),
      ...told.keys.filter((name) => name !== 'back').map((name) => button(name, () => session.act('key', name))),
    );
    replace(this.cells, ...told.cells.map((cell) => this.cell(cell)));
  }
  private turned = false;

  // A value that the app would write: set, it travels there as the part says.
  private cell(cell: { name: string; kind: string; value: string; choices?: string[] }): HTMLElement {
    const { session } = this;
    const id = `cell-${cell.name}`;
    if (cell.choices !== undefined) {
      const list = el('select', { id }, ...cell.choices.map((one) => el('option', { value: one }, one)));
      list.addEventListener('change', () => session.act('set', cell.name, list.value));
      return el('p', { 'data-cell': cell.name }, el('label', { for: id }, cell.name), list);
    }
    if (cell.kind === 'yes or no') {
      const box = el('input', { type: 'checkbox', id });
      box.addEventListener('change', () => session.act('set', cell.name, box.checked ? 'yes' : 'no'));
      return el('p', { 'data-cell': cell.name }, el('label', { for: id }, cell.name), box);
    }
    const text = el('input', { type: 'text', id, spellcheck: 'false' });
    text.addEventListener('change', () => session.act('set', cell.name, text.value));
    return el('p', { 'data-cell': cell.name }, el('label', { for: id }, cell.name), text);
  }

  /** Shows what is read now. */
  show(run: number): void {
    if (this.root.hidden || this.root.closest('[hidden]') !== null) return;
    const { session } = this;
    const rows = this.readings.rows;
    for (let i = 0; i < this.which.length && i < rows.length; ++i) {
      const words = session.ubbo.value_text(run, this.which[i]);
      const cell = rows[i].cells[1];
      if (cell.textContent !== words) cell.textContent = words;
    }
    for (const row of this.cells.children) {
      const name = (row as HTMLElement).dataset.cell!;
      const at = session.readings.findIndex((reading) => reading.name === `cell.${name}`);
      const field = row.querySelector('input, select') as HTMLInputElement | HTMLSelectElement;
      if (at < 0 || document.activeElement === field) continue;
      const words = session.ubbo.value_text(run, at);
      if (field instanceof HTMLInputElement && field.type === 'checkbox') field.checked = words === 'yes' || words === 'true';
      else field.value = words.replace(/^"(.*)"$/, '$1');
    }
  }
}
