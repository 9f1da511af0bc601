// Loads the library, the scene and its takes, and puts the bench together.
import { Bench } from './bench';
import { first_look } from './first_look';
import { Ubbo } from '../../../npm/src/ubbo';
import { Session } from './session';
import type { Source } from './session';
import { el, replace } from './dom';

interface Embedded {
  source: Source;
  module: string; // base64
}

function bytes_of(base64: string): Uint8Array<ArrayBuffer> {
  const letters = atob(base64);
  const bytes = new Uint8Array(letters.length);
  for (let i = 0; i < letters.length; ++i) bytes[i] = letters.charCodeAt(i);
  return bytes;
}

async function fetched(path: string): Promise<Response> {
  const answer = await fetch(path);
  if (!answer.ok) throw new Error(`${path} could not be fetched: ${answer.status}`);
  return answer;
}

async function begin(): Promise<void> {
  // One file that opens by itself carries all in it; else it is fetched from beside the page.
  const embedded = document.getElementById('ubbo-data');
  let source: Source;
  let ubbo: Ubbo;
  const bench = document.getElementById('bench')!;
  if (embedded !== null) {
    const held = JSON.parse(embedded.textContent!) as Embedded;
    source = held.source;
    await first_look(source, bench);
    ubbo = await Ubbo.load(bytes_of(held.module));
  } else {
    const scene = fetched('scene.json').then((answer) => answer.json() as Promise<Source>);
    const module = fetched('ubbo.wasm').then((answer) => Ubbo.load(answer));
    source = await scene;
    await first_look(source, bench);
    ubbo = await module;
  }
  const session = new Session(ubbo, source);
  if (!session.open()) {
    // There is no scene yet that could be shown: say what is wrong, and wait for the file to change.
    const wrong = session.fault.map((one) => el('li', {}, `${one.file}:${one.line}:${one.column}: found ${one.found}`, one.takes === '' ? '' : `; takes ${one.takes}`));
    replace(bench, el('div', { class: 'broken', role: 'alert' }, el('h1', {}, 'The scene does not read'), el('ul', {}, ...wrong)));
    if (source.served) window.setTimeout(() => window.location.reload(), 2000);
    return;
  }
  const made = new Bench(session, bench);
  // For tests: what the page has under the finger.
  Object.assign(window, { ubbo_bench: made });
}

begin().catch((error: unknown) => {
  const bench = document.getElementById('bench')!;
  replace(bench, el('p', { class: 'broken', role: 'alert' }, `The page could not begin: ${error instanceof Error ? error.message : String(error)}`));
});
