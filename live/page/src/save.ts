// What has been changed, as lines of the scene file before and after; it is written only when that is asked for.
import { button, el, replace } from './dom';
import type { Link } from './link';
import type { Session } from './session';

/** The lines that differ, with the line around them. */
export function difference_of(before: string, after: string): { mark: ' ' | '-' | '+'; line: string }[] {
  const a = before.split('\n');
  const b = after.split('\n');
  const rows: { mark: ' ' | '-' | '+'; line: string }[] = [];
  let i = 0;
  let j = 0;
  while (i < a.length || j < b.length) {
    if (i < a.length && j < b.length && a[i] === b[j]) {
      rows.push({ mark: ' ', line: a[i++] });
      ++j;
      continue;
    }
    // A line comes or changes; none goes.
    const later = b.indexOf(a[i], j);
    const until = i >= a.length ? b.length : later;
    if (until > j && until - j < 8) {
      while (j < until) rows.push({ mark: '+', line: b[j++] });
    } else {
      if (i < a.length) rows.push({ mark: '-', line: a[i++] });
      if (j < b.length) rows.push({ mark: '+', line: b[j++] });
    }
  }
  return rows.filter((_, k) => rows.slice(Math.max(0, k - 1), k + 2).some(({ mark }) => mark !== ' '));
}

export function save_dialog(session: Session, link: Link | undefined, say: (words: string) => void): void {
  const text = session.written();
  const dialog = el('dialog', { class: 'save', 'aria-label': 'Save the changes' });
  const close = (): void => {
    dialog.close();
    dialog.remove();
  };
  if (text === '') {
    const wrong = session.fault[0];
    dialog.append(
      el('h2', {}, 'These changes cannot be written'),
      el('p', {}, `Found ${wrong?.found ?? 'something'}${wrong?.takes ? `; takes ${wrong.takes}` : ''}.`),
    );
  } else {
    const rows = difference_of(session.source.text, text).map(({ mark, line }) =>
      el('div', { class: mark === '+' ? 'come' : mark === '-' ? 'gone' : '' }, `${mark} ${line}`));
    dialog.append(el('h2', {}, `Changes of ${session.source.name}`), el('div', { class: 'diff', tabindex: 0 }, ...rows));
  }
  const buttons = el('div', { class: 'group' });
  if (text !== '') {
    if (link?.open)
      buttons.append(button('Write to the file', () => {
        link.save(session.changed);
        close();
      }, { class: 'main' }));
    buttons.append(
      button('Copy the scene', () => {
        navigator.clipboard?.writeText(text).then(() => say('The scene has been copied.'), () => say('The browser does not let the page copy; download it instead.'));
        close();
      }),
      button('Download', () => {
        const address = URL.createObjectURL(new Blob([text], { type: 'application/toml' }));
        el('a', { href: address, download: session.source.name.replace(/^.*[/\\]/, '') }).click();
        URL.revokeObjectURL(address);
        close();
      }),
    );
  }
  buttons.append(button('Close', close));
  dialog.append(buttons);
  dialog.addEventListener('close', () => dialog.remove());
  replace(dialog, ...[...dialog.childNodes] as Element[]);
  document.body.append(dialog);
  dialog.showModal();
}
