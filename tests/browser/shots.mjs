// node shots.mjs FOLDER: pictures of the live page for the docs, from the demo's scenes.
import { join } from 'node:path';
import { close_browser, folder, open, serve, way } from './serving.mjs';

const out = process.argv[2];
const there = folder();
const scene = (name) => join(there.path, `${name}.scene.toml`);
const pause = (view, ms) => view.page.waitForTimeout(ms);

// A sheet under a finger.
let server = await serve(scene('hive-sheet'));
let view = await open(server.address);
await view.fingers([[[280, 62]]]);
await view.rested();
await pause(view, 300);
for (const name of ['Snap points', 'Safe area']) await view.page.getByRole('button', { name, exact: true }).click();
const points = way([180, 558], [188, 410], 24);
await view.send('touchStart', [{ ...(await view.place(...points[0])), id: 0 }]);
for (const point of points) {
  await pause(view, 16);
  await view.send('touchMove', [{ ...(await view.place(...point)), id: 0 }]);
}
await pause(view, 120);
await view.page.screenshot({ path: join(out, 'live.png') });
await view.send('touchEnd', []);
await view.close();

// A beside B, dark, with a spring that is pulled.
view = await open(server.address, 'desk', { colorScheme: 'dark' });
await view.fingers([[[280, 62]]]);
await view.rested();
await view.fingers([way([180, 558], [180, 300], 12)], 14);
await view.rested();
await view.page.getByRole('button', { name: 'A beside B' }).click();
await view.page.locator('[data-key="hive.transition"]').scrollIntoViewIfNeeded();
const handle = await view.page.locator('[data-key="hive.transition"] .handle').boundingBox();
await view.page.mouse.move(handle.x + 5, handle.y + 5);
await view.page.mouse.down();
await view.page.mouse.move(handle.x + 30, handle.y - 6, { steps: 6 });
await view.page.mouse.up();
await view.page.evaluate(() => {
  ubbo_bench.again.pause();
  ubbo_bench.again.seek(0.62 * ubbo_bench.again.ends);
});
await pause(view, 200);
await view.page.screenshot({ path: join(out, 'live-beside.png') });
await view.close();
await server.end();

// The last touch again, with where it went before.
server = await serve(scene('inspection'));
view = await open(server.address);
await view.fingers([way([154, 224], [222, 224], 16)], 20);
await view.rested();
const step = view.page.locator('[data-key="frames.step"] input[type=number]');
await step.fill('4');
await step.press('Enter');
await pause(view, 100);
await view.page.evaluate(() => {
  ubbo_bench.again.pause();
  ubbo_bench.again.seek(ubbo_bench.again.ends);
});
await pause(view, 200);
await view.page.screenshot({ path: join(out, 'live-again.png') });
await view.close();
await server.end();
await close_browser();
there.gone();
