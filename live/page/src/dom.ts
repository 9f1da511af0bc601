// Elements with attributes and children in one call. Texts are always texts, never markup.
type Child = Node | string | undefined | false;
type Attributes = Record<string, string | number | boolean | undefined | ((event: never) => void)>;

export function el<K extends keyof HTMLElementTagNameMap>(
  name: K,
  attributes: Attributes = {},
  ...children: Child[]
): HTMLElementTagNameMap[K] {
  const made = document.createElement(name);
  for (const [key, value] of Object.entries(attributes)) {
    if (value === undefined || value === false) continue;
    if (typeof value === 'function') made.addEventListener(key.slice(2), value as EventListener);
    else made.setAttribute(key, value === true ? '' : String(value));
  }
  for (const child of children) if (child !== undefined && child !== false) made.append(child);
  return made;
}

export function button(words: string, press: () => void, attributes: Attributes = {}): HTMLButtonElement {
  return el('button', { type: 'button', onclick: press, ...attributes }, words);
}

/** A button that is on or off. */
export function toggle(words: string, on: boolean, press: (on: boolean) => void, title = ''): HTMLButtonElement {
  const made = button(words, () => {
    const now = made.getAttribute('aria-pressed') !== 'true';
    made.setAttribute('aria-pressed', String(now));
    press(now);
  });
  made.setAttribute('aria-pressed', String(on));
  made.classList.add('toggle');
  if (title !== '') made.title = title;
  return made;
}

export function replace(parent: Element, ...children: Child[]): void {
  parent.replaceChildren(...children.filter((child): child is Node | string => child !== undefined && child !== false));
}

export const ms = (us: number): string => `${Math.round(us / 1000)} ms`;

export function number_text(value: number): string {
  return String(Number(value.toPrecision(5)));
}
