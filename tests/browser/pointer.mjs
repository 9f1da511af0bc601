// A mouse and its wheel in a real browser: what its events come to is what the docs say of them.
// Usage: node pointer.mjs UBBO, where UBBO is the tool.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { launch } from './launch.mjs';

const ubbo = process.argv[2];
const demo = join(dirname(fileURLToPath(import.meta.url)), '../../demo');
const folder = mkdtempSync(join(tmpdir(), 'ubbo-pointer-'));
const fail = (why) => {
  console.error(why);
  process.exitCode = 1;
};

// What an app would record, a line an event.
const record = () => {
  window.lines = [];
  const keys = ['type', 'pointerId', 'pointerType', 'clientX', 'clientY', 'pressure', 'width', 'timeStamp', 'deltaX',
    'deltaY', 'deltaMode', 'ctrlKey', 'wheelDeltaX', 'wheelDeltaY'];
  for (const type of ['pointerdown', 'pointermove', 'pointerup', 'pointercancel', 'pointerleave', 'wheel'])
    document.documentElement.addEventListener(type, (event) => {
      const line = {};
      for (const key of keys) if (event[key] !== undefined) line[key] = event[key];
      window.lines.push(JSON.stringify(line));
    });
};

const browser = await launch();
const page = await browser.newPage({ viewport: { width: 360, height: 720 } });
const played = async (scene, moves) => {
  await page.setContent('<!doctype html><body style="margin: 0; height: 720px"></body>');
  await page.evaluate(record);
  await moves(page.mouse);
  // A wheel reaches the page by way of the compositor.
  await page.waitForTimeout(400);
  const lines = await page.evaluate(() => window.lines);
  const file = join(folder, 'recording.jsonl');
  writeFileSync(file, `${lines.join('\n')}\n`);
  const told = JSON.parse(execFileSync(ubbo, ['replay', join(demo, `${scene}.scene.toml`), file, '--json'], { encoding: 'utf8' }));
  return { events: lines.map((line) => JSON.parse(line)), told };
};
const says = (told, answer, part) => told.decisions.some((one) => one.decision === answer && (!part || one.part === part));

const list = await played('hive-list', async (mouse) => {
  await mouse.move(200, 500);
  await mouse.wheel(0, 40);
  await mouse.wheel(0, 50);
});
// As the docs say: multiples of 120 are notches of 66 dp each, but for three times the way, which is a trackpad's.
const wheels = list.events.filter((event) => event.type === 'wheel');
const way = wheels.reduce((sum, event) => {
  const notches = event.wheelDeltaY % 120 === 0 && event.wheelDeltaY !== -3 * event.deltaY;
  return sum + (notches ? (-66 * event.wheelDeltaY) / 120 : event.deltaY);
}, 0);
if (wheels.length !== 2 || wheels[0].deltaY !== 40) fail(`the browser told of other turns: ${JSON.stringify(wheels)}`);
if (Math.abs(list.told.cells.scrolled + way) > 1e-9) fail(`the list is at ${list.told.cells.scrolled} after ${way} dp`);
if (!says(list.told, 'wheel.scrolls', 'list')) fail('nothing says that the wheel scrolls the list');

const form = await played('inspection', async (mouse) => {
  await mouse.move(180, 100);
  await mouse.move(180, 560, { steps: 12 });
  await mouse.down();
  await mouse.up();
});
if (!says(form.told, 'hover.enters')) fail('nothing says that the pointer is over a part');
if (form.told.warnings?.length) fail(`warnings: ${JSON.stringify(form.told.warnings)}`);

await browser.close();
rmSync(folder, { recursive: true });
if (!process.exitCode) console.log("a mouse's moves and wheel, as Chromium tells them, come to what the docs say");
