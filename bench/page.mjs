// node bench/page.mjs UBBO: what the live page costs in headless Chromium, as medians.
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
process.env.UBBO ??= process.argv[2];
const { browser, close_browser, folder, open, serve, until, way } = await import('../tests/browser/serving.mjs');

const median = (all) => all.slice().sort((a, b) => a - b)[all.length >> 1];
const there = folder();
const server = await serve(join(there.path, 'hive-sheet.scene.toml'));
const firsts = [];
const touchables = [];
for (let i = 0; i < 7; ++i) {
  const context = await (await browser()).newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(server.address);
  await until(() => page.evaluate(() => 'ubbo_bench' in window), 'the page has begun');
  await page.waitForTimeout(200);
  const [first, touchable] = await page.evaluate(() => [performance.getEntriesByName('first picture')[0].startTime, ubbo_bench.touchable]);
  firsts.push(first);
  touchables.push(touchable);
  await context.close();
}
const view = await open(server.address);
await view.fingers([[[280, 62]]]);
await view.rested();
await view.page.evaluate(() => (ubbo_bench.frames.length = 0));
await view.fingers([[...way([180, 558], [180, 380], 30), ...way([180, 380], [180, 420], 20)]], 14);
const frames = await view.page.evaluate(() => [...ubbo_bench.frames]);
await view.rested();
const { steps, length } = await view.page.evaluate(async () => {
  const { session, again } = ubbo_bench;
  const steps = [];
  for (let i = 0; i < 60; ++i) {
    const from = performance.now();
    session.set('feel.drag_threshold', String(6 + (i % 20) / 2), true);
    steps.push(performance.now() - from);
    await new Promise(requestAnimationFrame);
  }
  session.pulled();
  return { steps, length: again.ends / 1e6 };
});
const size = ['', 'page.js', 'page.css', 'ubbo.wasm', 'inter-400.woff2', 'inter-600.woff2', 'scene.json']
  .map((path) => Number(execFileSync('curl', ['-s', '-o', '/dev/null', '-w', '%{size_download}', server.address + path])))
  .reduce((a, b) => a + b, 0);
const row = (what, value) => console.log(`| ${what} | ${value} |`);
row('the first picture, after a cold load on loopback', `${Math.round(median(firsts))} ms`);
row('… until it is under the finger', `${Math.round(median(touchables))} ms`);
row('work of the page for a frame with a finger that drags the sheet', `${median(frames).toFixed(1)} ms`);
row(`a number pulled, while a take of ${length.toFixed(1)} s happens again under it`, `${median(steps).toFixed(1)} ms a step`);
row('all that the page fetches, packed by gzip', `${Math.round(size / 1024)} KB`);
await view.close();
await close_browser();
await server.end();
there.gone();
