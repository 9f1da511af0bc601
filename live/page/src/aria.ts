// The stage as elements for assistive technology and the keyboard: one for each part in sight, where it is, with its
// role, name, value and actions. They are drawn by nobody and touched by nobody but a screen reader.
import { el, replace } from './dom';
import type { Part } from '../../../npm/src/ubbo';
import type { Session } from './session';

const keys: Record<string, string> = {
  ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down', PageUp: 'page-up', PageDown: 'page-down',
  Home: 'home', End: 'end', ' ': 'space', Enter: 'enter', Escape: 'escape',
};

// Roles that need another around them, or a name that most parts do not give, are told as a group.
const known = new Set([
  'slider', 'switch', 'button', 'checkbox', 'radio', 'tab', 'dialog', 'alertdialog', 'progressbar', 'status', 'alert',
  'group', 'region', 'scrollbar', 'spinbutton', 'meter',
]);

export class Mirror {
  readonly root = el('div', { class: 'mirror' });
  private readonly elements = new Map<string, HTMLElement>();
  private told = '';

  constructor(private readonly session: Session) {}

  /** Shows the parts as they are now; `scale`: CSS px for a dp. */
  show(parts: Part[], scale: number): void {
    const modal = parts.map((part) => part.accessible.modal === true).lastIndexOf(true);
    const reached = modal < 0 ? parts : parts.filter((part, i) => i >= modal || part.inside === parts[modal].id);
    const order = reached.map((part) => part.id).join('\n');
    for (const part of reached) {
      let made = this.elements.get(part.id);
      if (made === undefined) {
        made = this.make(part.id);
        this.elements.set(part.id, made);
      }
      this.describe(made, part, scale);
    }
    if (order !== this.told) {
      this.told = order;
      const focused = document.activeElement;
      replace(this.root, ...reached.map((part) => this.elements.get(part.id)!));
      if (focused instanceof HTMLElement && this.root.contains(focused)) focused.focus();
      for (const id of [...this.elements.keys()]) if (!reached.some((part) => part.id === id)) this.elements.delete(id);
    }
  }

  private make(id: string): HTMLElement {
    const { session } = this;
    const made = el('div', { 'data-part': id });
    made.addEventListener('focus', () => session.act('focus', id));
    made.addEventListener('keydown', (event) => {
      const key = keys[event.key];
      if (key === undefined || event.target !== made || event.ctrlKey || event.metaKey || event.altKey) return;
      session.act('key', key);
      event.preventDefault();
      event.stopPropagation();
    });
    // What a screen reader's own activation does.
    made.addEventListener('click', (event) => {
      if (event.target === made) session.act('key', 'enter');
    });
    return made;
  }

  private describe(made: HTMLElement, part: Part, scale: number): void {
    const told = part.accessible;
    const set = (name: string, value: string | number | boolean | undefined): void => {
      if (value === undefined || value === '') made.removeAttribute(name);
      else if (made.getAttribute(name) !== String(value)) made.setAttribute(name, String(value));
    };
    const role = known.has(told.role) ? told.role : 'group';
    const [x, y, w, h] = part.box;
    made.style.transform = `translate(${x * scale}px, ${y * scale}px)`;
    made.style.width = `${Math.max(1, w * scale)}px`;
    made.style.height = `${Math.max(1, h * scale)}px`;
    const takes_focus = told.keys !== undefined && told.disabled !== true;
    set('role', role);
    set('tabindex', takes_focus ? 0 : undefined);
    set('aria-label', told.label === '' ? part.id : told.label);
    set('aria-disabled', told.disabled === true ? true : undefined);
    const ranged = role === 'slider' || role === 'progressbar' || role === 'scrollbar' || role === 'meter' || role === 'spinbutton';
    set('aria-valuenow', ranged ? told.value_now : undefined);
    set('aria-valuemin', ranged ? told.value_min : undefined);
    set('aria-valuemax', ranged ? told.value_max : undefined);
    set('aria-valuetext', ranged ? told.value_text : undefined);
    set('aria-description', !ranged && told.value_text !== undefined ? told.value_text : undefined);
    set('aria-orientation', role === 'slider' || role === 'scrollbar' ? told.orientation : undefined);
    set('aria-checked', role === 'switch' || role === 'checkbox' || role === 'radio' ? String(told.checked ?? false) : undefined);
    set('aria-pressed', role === 'button' ? told.pressed : undefined);
    set('aria-expanded', role === 'button' ? told.expanded : undefined);
    set('aria-selected', role === 'tab' ? told.selected : undefined);
    set('aria-modal', role === 'dialog' || role === 'alertdialog' ? told.modal : undefined);
    set('aria-live', told.live);
    const offered = told.actions ?? [];
    const actions = offered.join('\n');
    if (made.dataset.actions === actions) return;
    made.dataset.actions = actions;
    // A role that may hold no buttons has its actions beside it, by the keyboard.
    const holds = role === 'group' || role === 'region' || role === 'dialog' || role === 'alertdialog';
    replace(
      made,
      ...(holds ? offered : []).map((action) =>
        el('button', { type: 'button', onclick: () => this.session.act('call', part.id, action) }, `${told.label || part.id}: ${action}`)),
    );
  }
}
