// `ubbo live` on a copy of the demo, a page that shows it, and fingers through the browser's own input.
import { execFileSync, spawn } from 'node:child_process';
import { copyFileSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { launch } from './launch.mjs';

export const ubbo = resolve(process.env.UBBO);
const demo = new URL('../../demo/', import.meta.url).pathname;

/** A folder with the demo's files, gone at the end. */
export function folder() {
  const path = mkdtempSync(join(tmpdir(), 'ubbo-live-'));
  for (const file of readdirSync(demo)) if (/\.(toml|csv|svg)$/.test(file)) copyFileSync(join(demo, file), join(path, file));
  return { path, gone: () => rmSync(path, { recursive: true, force: true }) };
}

/** Serves a scene; `address` is where. */
export async function serve(scene, more = []) {
  const child = spawn(ubbo, ['live', scene, '--port', '0', ...more], { stdio: ['ignore', 'pipe', 'pipe'] });
  let out = '';
  let log = '';
  child.stderr.on('data', (text) => (log += text));
  const address = await new Promise((found, failed) => {
    child.stdout.on('data', (text) => {
      out += text;
      const at = /https?:\/\/\S+/.exec(out);
      if (at !== null) found(at[0]);
    });
    child.on('exit', () => failed(new Error(`ubbo live ended: ${log}`)));
  });
  return {
    address,
    pid: child.pid,
    port: Number(new URL(address).port),
    log: () => log,
    said: () => out,
    end: () => new Promise((ended) => {
      if (child.exitCode !== null) return ended(child.exitCode);
      child.on('exit', ended);
      child.kill('SIGINT');
    }),
  };
}

let shared;
export const browser = async () => (shared ??= await launch());
export const close_browser = async () => shared?.close();

const sizes = { desk: { viewport: { width: 1280, height: 800 } }, phone: { viewport: { width: 390, height: 780 }, hasTouch: true, isMobile: true, deviceScaleFactor: 2 } };

/** A page at an address; faults in it fail the test. */
export async function open(address, size = 'desk', more = {}) {
  const context = await (await browser()).newContext({ ...sizes[size], ...more });
  const page = await context.newPage();
  const wrong = [];
  page.on('pageerror', (error) => wrong.push(error.message));
  page.on('console', (said) => said.type() === 'error' && !/favicon|Failed to load resource|WebSocket/.test(said.text()) && wrong.push(said.text()));
  await page.goto(address);
  await until(() => page.evaluate(() => 'ubbo_bench' in window || document.querySelector('.broken') !== null), 'the page has begun');
  const cdp = await context.newCDPSession(page);
  const place = async (x, y) => {
    const box = await page.locator('.device:not(.a) canvas.stage').boundingBox();
    const screen = await page.evaluate(() => ubbo_bench.session.told.screen);
    return { x: box.x + (x * box.width) / screen.w, y: box.y + (y * box.height) / screen.h };
  };
  const send = async (type, points) => cdp.send('Input.dispatchTouchEvent', { type, touchPoints: points });
  return {
    page, cdp, wrong, place,
    close: () => context.close(),
    /** Fingers that go along ways of places, in dp, one place every `step` ms, and are lifted. */
    async fingers(ways, step = 16) {
      const places = await Promise.all(ways.map((one) => Promise.all(one.map((point) => place(...point)))));
      const at = (k) => places.map((one, id) => ({ ...one[Math.min(k, one.length - 1)], id }));
      await send('touchStart', at(0));
      for (let k = 1; k < Math.max(...ways.map((way) => way.length)); ++k) {
        await page.waitForTimeout(step);
        await send('touchMove', at(k));
      }
      await page.waitForTimeout(step);
      await send('touchEnd', []);
    },
    send,
    /** Waits until `what` holds in the page, ten seconds at most. */
    until: (what, argument) => until(() => page.evaluate(what, argument), String(what)),
    /** Everything rests, and the take that came of it. */
    async rested() {
      await page.waitForTimeout(60);
      await until(() => page.evaluate(() => ubbo_bench.session.ubbo.settled(ubbo_bench.session.live)), 'at rest');
      // … and has been shown so.
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      return page.evaluate(() => ({
        take: ubbo_bench.session.ubbo.take(ubbo_bench.session.live),
        outcome: ubbo_bench.session.ubbo.outcome(ubbo_bench.session.live),
      }));
    },
  };
}

/** Waits until `what` answers yes, however slow the machine is just now. */
export async function until(what, words = String(what)) {
  for (let i = 0; i < 200; ++i) {
    if (await what()) return;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error(`after ten seconds this does not hold: ${words}`);
}

/** A straight way of `count` steps. */
export const way = (from, to, count = 10) =>
  Array.from({ length: count + 1 }, (_, i) => [from[0] + ((to[0] - from[0]) * i) / count, from[1] + ((to[1] - from[1]) * i) / count]);

/** What `ubbo replay` says of a take: cells, parts and decisions, as text. */
export function replayed(scene, take) {
  let out;
  try {
    out = execFileSync(ubbo, ['replay', scene, take, '--json'], { encoding: 'utf8', maxBuffer: 1 << 28, stdio: ['ignore', 'pipe', 'pipe'] });
  } catch (error) {
    if (error.status !== 1) throw error; // an expectation that is not met is none of ours
    out = error.stdout;
  }
  const { cells, parts, decisions } = JSON.parse(out);
  return JSON.stringify({ cells, parts, decisions });
}
