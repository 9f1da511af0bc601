// The settings of the chosen part, of the feel and of the screen, all made from the one table that the library has of
// them: with units, ranges, defaults, what they mean, and what is wrong with them.
import { button, el, number_text, replace } from './dom';
import { motion_drawing } from './motion_editor';
import type { Finding, Setting } from '../../../npm/src/ubbo';
import type { Session } from './session';

interface Row {
  owner: string; // frames
  key: string; // frames.step
  setting: Setting;
  value: string;
  line: number; // where the scene says it; 0: it does not
  set: HTMLElement;
  note: HTMLElement;
  show(value: string): void;
}

interface Group {
  title: string;
  words: string;
  owner: string;
  settings: Setting[];
  values: string[];
  said: Record<string, number>;
  open: boolean;
}

// Whether a finding is about a setting: it stands in its line, or names it.
function about(finding: Finding, row: Row): boolean {
  if (row.owner !== finding.of) return false;
  if (finding.line > 0 && finding.line === row.line) return true;
  return new RegExp(`(^|[^\\w.])${row.setting.name.replaceAll('.', '\\.')}([^\\w.]|$)`).test(finding.found);
}

export class SettingsPanel {
  readonly root = el('section', { class: 'panel settings', 'aria-label': 'Settings' });
  private readonly parts = el('select', { 'aria-label': 'Part' });
  private readonly search = el('input', { type: 'search', placeholder: 'Search all settings', 'aria-label': 'Search all settings' });
  private readonly list = el('div', { class: 'rows' });
  private rows: Row[] = [];
  private readonly heads = new Map<string, HTMLElement>(); // what is wrong with all of a part
  private findings: Finding[] = [];
  private built = ''; // what the rows were made for
  private readonly more = new Set<string>(); // groups whose rare settings are shown

  constructor(
    private readonly session: Session,
    private readonly sweep: (key: string, setting: Setting) => void,
  ) {
    this.root.append(el('div', { class: 'head' }, this.parts, this.search), this.list);
    this.parts.addEventListener('change', () => session.choose(this.parts.value));
    this.search.addEventListener('input', () => this.build());
    session.listen(({ what }) => {
      if (what === 'chosen') this.build();
      if (what === 'scene') this.refresh();
      if (what === 'fault') this.notes();
    });
    // The stage is seen first.
    window.setTimeout(() => this.refresh());
  }

  private groups(): Group[] {
    const { told, chosen, settings } = this.session;
    const all: Group[] = [];
    const parts = this.search.value.trim() === '' ? settings.parts.filter((part) => part.id === chosen) : settings.parts;
    for (const part of parts)
      all.push({
        title: part.id, words: told.kinds[part.kind].words, owner: part.id, settings: settings.kinds[part.kind],
        values: part.values, said: part.said, open: true,
      });
    for (const group of settings.groups)
      all.push({
        title: group.name === 'screen' ? 'Screen' : `Feel for ${group.words}`, words: '', owner: group.name,
        settings: group.settings, values: group.values, said: {}, open: group.name === 'feel',
      });
    return all;
  }

  /** Shows other values; makes the rows anew only where they are others. */
  private refresh(): void {
    const { session } = this;
    this.findings = session.ubbo.findings(session.now_scene);
    const ids = session.told.parts.map((part) => `${part.id} · ${session.told.kinds[part.kind].words}`);
    if (ids.join('\n') !== this.parts.dataset.ids) {
      this.parts.dataset.ids = ids.join('\n');
      replace(this.parts, ...session.told.parts.map((part, i) => el('option', { value: part.id }, ids[i])));
    }
    if (this.built !== this.key()) {
      this.build();
      return;
    }
    const values = new Map<string, [string, number]>();
    for (const group of this.groups())
      group.settings.forEach((setting, i) =>
        values.set(`${group.owner}.${setting.name}`, [group.values[i], group.said[setting.name] ?? 0]));
    for (const row of this.rows) {
      const [value, line] = values.get(row.key) ?? [row.value, row.line];
      row.line = line;
      row.show(value);
      row.value = value;
    }
    this.notes();
  }

  private key(): string {
    const { told, chosen } = this.session;
    return JSON.stringify([chosen, this.search.value, [...this.more], told.parts.map((part) => [part.id, part.kind])]);
  }

  private build(): void {
    const { session } = this;
    this.built = this.key();
    this.parts.value = session.chosen;
    this.rows = [];
    this.heads.clear();
    const asked = this.search.value.trim().toLowerCase();
    const fits = (group: Group, setting: Setting): boolean =>
      asked === '' || `${group.owner}.${setting.name} ${setting.meaning}`.toLowerCase().includes(asked);
    const made: HTMLElement[] = [];
    for (const group of this.groups()) {
      const usable = group.settings.map((setting, i) => ({ setting, value: group.values[i] }))
        .filter(({ setting }) => setting.kind !== 'cell' && fits(group, setting));
      if (usable.length === 0) continue;
      const rare = usable.filter(({ setting }) => this.is_rare(group, setting));
      const usual = usable.filter(({ setting }) => !this.is_rare(group, setting));
      const shown = asked !== '' || this.more.has(group.owner) ? usable : usual;
      const body = el('div', {}, ...shown.map(({ setting, value }) => this.row(group, setting, value)));
      if (asked === '' && rare.length > 0)
        body.append(
          button(this.more.has(group.owner) ? 'Fewer' : `${rare.length} more`, () => {
            if (!this.more.delete(group.owner)) this.more.add(group.owner);
            this.build();
          }, { class: 'more' }),
        );
      const head = el('summary', {}, el('b', {}, group.title), group.words === '' ? undefined : ` ${group.words}`);
      const note = el('p', { class: 'note' });
      this.heads.set(group.owner, note);
      made.push(el('details', { open: group.open || asked !== '' }, head, note, body));
    }
    if (made.length === 0) made.push(el('p', { class: 'quiet' }, `No setting has "${this.search.value}" in its name or meaning.`));
    replace(this.list, ...made);
    this.notes();
  }

  // What counts as another setting does, and texts, stand behind the others unless they are said.
  private is_rare(group: Group, setting: Setting): boolean {
    const key = `${group.owner}.${setting.name}`;
    if (this.session.value_of(key) !== undefined || group.said[setting.name] !== undefined) return false;
    return setting.like !== undefined || setting.kind === 'text' || setting.name.includes('.');
  }

  private row(group: Group, setting: Setting, value: string): HTMLElement {
    const { session } = this;
    const key = `${group.owner}.${setting.name}`;
    const id = `set-${key.replace(/[^\w]/g, '-')}`;
    const note = el('p', { class: 'note', id: `${id}-note` });
    const field = this.field(key, id, setting, value);
    const reset = button('reset', () => session.set(key, undefined), {
      class: 'reset', 'aria-label': `Reset ${setting.name} to what the scene says`,
    });
    const sweep =
      setting.kind === 'number' || setting.kind === 'time'
        ? button('sweep', () => this.sweep(key, setting), {
            class: 'reset sweep', 'aria-label': `Sweep ${setting.name} over the kept takes`,
          })
        : undefined;
    const name = el('label', { for: id, title: `${setting.meaning}; ${setting.takes}; default ${setting.default}` }, setting.name.replaceAll('_', ' '));
    const unit = el('span', { class: 'unit' }, setting.unit);
    const set = el(
      'div', { class: `row ${setting.kind}`, 'data-key': key },
      name, field.elements[0], unit,
      el('div', { class: 'below' }, ...field.elements.slice(1), el('span', { class: 'acts' }, sweep, reset)), note,
    );
    const row: Row = { owner: group.owner, key, setting, value, line: group.said[setting.name] ?? 0, set, note, show: field.show };
    this.rows.push(row);
    return set;
  }

  // What a setting is changed by; the first element stands beside its name, others below.
  private field(key: string, id: string, setting: Setting, value: string): { elements: Element[]; show: (value: string) => void } {
    const { session } = this;
    const about = { id, 'aria-describedby': `${id}-note` };
    const busy = (element: Element): boolean => document.activeElement === element;
    if (setting.kind === 'flag') {
      const box = el('input', { type: 'checkbox', ...about });
      box.checked = value === 'true';
      box.addEventListener('change', () => session.set(key, String(box.checked)));
      return { elements: [box], show: (next) => (box.checked = next === 'true') };
    }
    if (setting.kind === 'choice') {
      const list = el('select', about, ...(setting.choices ?? []).map((one) => el('option', { value: one }, one)));
      list.value = value;
      list.addEventListener('change', () => session.set(key, list.value));
      return { elements: [list], show: (next) => (list.value = next) };
    }
    if (setting.kind === 'number' || setting.kind === 'time') return this.number(key, about, setting, value);
    const text = el('input', { type: 'text', spellcheck: 'false', ...about });
    text.value = value;
    const quoted = (words: string): string => (setting.kind === 'text' ? JSON.stringify(words) : words);
    text.addEventListener('change', () => session.set(key, quoted(text.value)));
    if (setting.kind !== 'transition')
      return { elements: [text], show: (next) => { if (!busy(text)) text.value = next; } };
    const place = el('div', { class: 'drawing' });
    let pulled = false;
    const show = (next: string): void => {
      if (!busy(text)) text.value = next;
      if (pulled) return; // the drawing itself is what changes it
      const drawing = motion_drawing(session.ubbo, next, (words) => {
        pulled = true;
        text.value = words;
        session.set(key, words, true);
      }, () => {
        pulled = false;
        session.pulled();
      });
      replace(place, drawing);
    };
    show(value);
    return { elements: [text, place], show };
  }

  private number(key: string, about: { id: string }, setting: Setting, value: string): { elements: Element[]; show: (value: string) => void } {
    const { session } = this;
    const least = setting.min ?? 0;
    const most = setting.max ?? 100;
    const box = el('input', {
      type: 'number', min: least, max: most, step: setting.whole ? 1 : 'any', ...about,
    });
    const pull = el('input', { type: 'range', 'aria-label': `${setting.name}, pulled`, class: 'pull' });
    // Ranges that go further than anyone pulls end at four times what is usual.
    const bounds = (now: number): void => {
      const usual = Math.max(Math.abs(Number(setting.default) || 0), Math.abs(now));
      const far = most - least > 1000;
      const high = far ? Math.min(most, Math.max(4 * usual, setting.whole ? 12 : 40)) : most;
      if (Number(pull.max) >= now && pull.max !== '100' && pull.dataset.set === '1') return;
      pull.min = String(far && least < 0 ? Math.max(least, -high) : least);
      pull.max = String(high);
      const span = high - Number(pull.min);
      pull.step = setting.whole ? '1' : span > 200 ? '1' : span > 20 ? '0.5' : span > 2 ? '0.05' : '0.01';
      pull.dataset.set = '1';
    };
    const show = (next: string): void => {
      const number = Number(next);
      bounds(number);
      if (document.activeElement !== box) box.value = number_text(number);
      if (document.activeElement !== pull || Number(pull.value) !== number) pull.value = next;
      pull.style.setProperty('--share', `${((number - Number(pull.min)) / (Number(pull.max) - Number(pull.min))) * 100}%`);
      pull.setAttribute('aria-valuetext', `${number_text(number)} ${setting.unit}`);
    };
    show(value);
    box.addEventListener('change', () => {
      if (box.value !== '') session.set(key, box.value);
    });
    pull.addEventListener('input', () => {
      if (session.set(key, pull.value, true)) show(pull.value);
    });
    pull.addEventListener('change', () => session.pulled());
    return { elements: [box, pull], show };
  }

  // What is wrong beside the setting it is about, and which are no longer as the scene says.
  private notes(): void {
    const { session } = this;
    for (const row of this.rows) {
      const wrong = session.fault_of === row.key ? session.fault[0] : undefined;
      const finding = this.findings.find((one) => one.silenced === undefined && about(one, row));
      row.set.classList.toggle('changed', session.value_of(row.key) !== undefined);
      row.set.classList.toggle('wrong', wrong !== undefined);
      row.note.textContent =
        wrong !== undefined
          ? `Not taken: found ${wrong.found}${wrong.takes === '' ? '' : `; takes ${wrong.takes}`}`
          : finding !== undefined
            ? `${finding.found}. ${finding.remedy}`
            : '';
    }
    // What is about no single setting stands above them.
    for (const [owner, note] of this.heads) {
      const rows = this.rows.filter((row) => row.owner === owner);
      note.textContent = this.findings
        .filter((one) => one.silenced === undefined && one.of === owner && !rows.some((row) => about(one, row)))
        .map((one) => `${one.found}. ${one.remedy}.`)
        .join(' ');
    }
  }
}
