// The page in a real browser: what is touched through it comes to the same as a replay, and all that the bench offers.
import assert from 'node:assert/strict';
import { execFileSync, spawn } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { after, before, test } from 'node:test';
import { close_browser, folder, open, replayed, serve, ubbo, until, way } from './serving.mjs';

let there;
let number = 0;
before(() => (there = folder()));
after(async () => {
  await close_browser();
  there.gone();
});
const scene_file = (name) => join(there.path, `${name}.scene.toml`);

async function on(name, size, body, more = {}) {
  const server = await serve(scene_file(name));
  const view = await open(server.address, size, more);
  try {
    await body(view, server);
    assert.deepEqual(view.wrong, []);
  } finally {
    await view.close();
    await server.end();
  }
}

// Whatever is written to the scene is gone for the next test.
async function with_file_kept(name, size, body) {
  const text = readFileSync(scene_file(name), 'utf8');
  try {
    await on(name, size, body);
  } finally {
    writeFileSync(scene_file(name), text);
  }
}

// The take that a touch became, replayed by the command, comes to the same, byte for byte.
async function same_as_replay(name, view) {
  const { take, outcome } = await view.rested();
  const file = join(there.path, `touched-${++number}.csv`);
  writeFileSync(file, take);
  assert.equal(JSON.stringify(JSON.parse(outcome)), replayed(scene_file(name), file));
  return JSON.parse(outcome);
}

test('drags, flicks, taps, double taps, pinches, edge swipes and back come to what a replay comes to', async (t) => {
  await t.test('a drag of a slider, and a tap, on a phone by night', () =>
    on('inspection', 'phone', async (view) => {
      await view.fingers([way([154, 224], [250, 224], 14)]);
      const first = await same_as_replay('inspection', view);
      assert.ok(first.cells.frames > 4);
      await view.fingers([[[64, 410]]]);
      await same_as_replay('inspection', view);
      await view.fingers([way([60, 224], [300, 224], 30)], 8);
      assert.equal((await same_as_replay('inspection', view)).cells.frames, 10);
    }, { colorScheme: 'dark' }));
  await t.test('a row that is swiped, a list that is flicked, a name that is tapped twice, on a desk', () =>
    on('hive-list', 'desk', async (view) => {
      await view.fingers([way([300, 330], [150, 330], 10)]);
      assert.notEqual((await same_as_replay('hive-list', view)).cells.open, '');
      await view.fingers([way([180, 600], [180, 380], 5)], 8);
      assert.notEqual((await same_as_replay('hive-list', view)).cells.scrolled, 0);
      await view.fingers([[[180, 400]]]);
      await view.page.waitForTimeout(90);
      await view.fingers([[[180, 400]]]);
      await same_as_replay('hive-list', view);
    }));
  await t.test('a swipe from the edge, a tap beside, and back', () =>
    on('hive-sheet', 'phone', async (view) => {
      await view.fingers([way([3, 400], [240, 404], 12)], 12);
      assert.equal((await same_as_replay('hive-sheet', view)).cells.drawer_open, true);
      await view.page.evaluate(() => ubbo_bench.session.act('back'));
      assert.equal((await same_as_replay('hive-sheet', view)).cells.drawer_open, false);
    }));
  await t.test('two fingers that pinch', () =>
    on('frame', 'phone', async (view) => {
      await view.fingers([way([150, 360], [90, 360], 8), way([210, 360], [290, 380], 8)]);
      const came = await same_as_replay('frame', view);
      assert.ok(Object.values(came.parts).some((part) => part.readings.zoom > 1));
    }));
});

test('every take of the demo comes out in the page as by the command', () =>
  on('inspection', 'desk', async (view) => {
    const takes = readdirSync(there.path).filter((file) => file.endsWith('.take.csv'));
    assert.ok(takes.length > 50);
    for (const file of takes) {
      const name = file.slice(0, file.indexOf('.'));
      const outcome = await view.page.evaluate(([scene, take]) => {
        const u = ubbo_bench.session.ubbo;
        const read = u.read_scene(scene, 'scene');
        const run = u.begin_take(read, take, 'take');
        u.play(run, -1);
        const came = u.outcome(run);
        u.free_run(run);
        u.free_scene(read);
        return came;
      }, [readFileSync(scene_file(name), 'utf8'), readFileSync(join(there.path, file), 'utf8')]);
      assert.equal(JSON.stringify(JSON.parse(outcome)), replayed(scene_file(name), join(there.path, file)), file);
    }
  }));

test('a number is changed: the touch happens again, before beside now; it is undone, done again, and saved', () =>
  with_file_kept('inspection', 'desk', async (view) => {
    const { page } = view;
    await view.fingers([way([154, 224], [218, 224], 12)]);
    await view.rested();
    await until(async () => (await page.locator('.settings select').first().inputValue()) === 'frames', 'what was touched is chosen');
    const step = page.locator('[data-key="frames.step"] input[type=number]');
    await step.fill('4');
    await step.press('Enter');
    await view.until(() => ubbo_bench.again.before !== undefined && ubbo_bench.again.now.outcome !== ubbo_bench.again.before.outcome);
    await until(async () => /another outcome/.test(await page.locator('.sum').textContent()), 'another outcome is told');
    assert.ok((await page.locator('.told.two .gone').count()) > 0 && (await page.locator('.told.two .come').count()) > 0);
    // Scrubbed by the keyboard, step by step, forward and back.
    const strip = page.locator('canvas.strip');
    await strip.focus();
    const stands = (time) => until(async () => (await strip.getAttribute('aria-valuenow')) === time, `the strip stands at ${time} ms`);
    await strip.press('Home');
    await stands('0');
    await strip.press('ArrowRight');
    await stands('17');
    await page.getByRole('button', { name: 'One frame back' }).click();
    await stands('0');
    const shows = (value) => until(async () => (await step.inputValue()) === value, `step shows ${value}`);
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await shows('1');
    await page.getByRole('button', { name: 'Redo', exact: true }).click();
    await shows('4');
    // What is not taken says so beside it, and changes nothing.
    await step.fill('-3');
    await step.press('Enter');
    await until(async () => /Not taken/.test(await page.locator('[data-key="frames.step"] .note').textContent()), 'it says so');
    // What `ubbo check` finds stands beside the number that it names.
    await page.evaluate(() => ubbo_bench.session.set('feel.drag_threshold', '30'));
    await until(async () => /tap_reach/.test(await page.locator('[data-key="feel.drag_threshold"] .note').textContent()), 'a warning beside the number');
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await until(async () => (await page.locator('[data-key="feel.drag_threshold"] .note').textContent()) === '', 'it is gone with it');
    const before_saving = readFileSync(scene_file('inspection'), 'utf8');
    await page.getByRole('button', { name: 'Save…' }).click();
    assert.equal(readFileSync(scene_file('inspection'), 'utf8'), before_saving); // nothing is written unasked
    await page.getByRole('button', { name: 'Write to the file' }).click();
    await until(() => /step = 4/.test(readFileSync(scene_file('inspection'), 'utf8')), 'the file has it');
    const saved = readFileSync(scene_file('inspection'), 'utf8');
    assert.equal(saved.split('\n').filter((line) => !before_saving.includes(line)).length, 1);
    await until(() => page.getByRole('button', { name: 'Save…' }).isDisabled(), 'there is nothing more to save');
  }));

test('A beside B: one finger goes on both, each by its own settings', () =>
  on('inspection', 'desk', async (view) => {
    const { page } = view;
    await page.getByRole('button', { name: 'A beside B' }).click();
    await page.evaluate(() => ubbo_bench.session.set('frames.step', '5'));
    await view.fingers([way([154, 224], [234, 224], 12)]);
    await view.rested();
    const cells = await page.evaluate(() => {
      const b = ubbo_bench;
      return [b.beside.run, b.session.live].map((run) => JSON.parse(b.session.ubbo.cells(run)).frames);
    });
    assert.equal(cells[1] % 5, 0);
    assert.notEqual(cells[0], cells[1]);
  }));

test('a file that breaks is told with its place while the last good scene stays; a good one is taken up', () =>
  with_file_kept('triage', 'desk', async (view) => {
    const { page } = view;
    const good = readFileSync(scene_file('triage'), 'utf8');
    writeFileSync(scene_file('triage'), good.replace('kind = "card-deck"', 'kind = "card-dek"'));
    await page.waitForSelector('.state.wrong');
    assert.match(await page.locator('.state.wrong').textContent(), /triage\.scene\.toml:\d+:\d+: found .*card-deck/);
    await view.fingers([way([180, 400], [330, 400], 8)]); // it can be touched on
    await view.rested();
    writeFileSync(scene_file('triage'), good.replace(/title = ".*"/, 'title = "another <b>title</b>"'));
    await view.until(() => ubbo_bench.session.told.title === 'another <b>title</b>');
    await until(async () => (await page.locator('.state.wrong').count()) === 0, 'nothing is wrong any more');
  }));

test('two viewers: what one touches the other follows, and a second finger waits its turn', () =>
  on('inspection', 'phone', async (phone, server) => {
    const desk = await open(server.address, 'desk');
    await phone.until(() => ubbo_bench.link.viewers === 2);
    await desk.until(() => ubbo_bench.link.viewers === 2);
    const frames = (view) => view.page.evaluate(() => JSON.parse(ubbo_bench.session.ubbo.cells(ubbo_bench.session.live)).frames);
    const points = way([154, 224], [250, 224], 10);
    await phone.send('touchStart', [{ ...(await phone.place(...points[0])), id: 0 }]);
    for (const point of points.slice(1)) {
      await phone.page.waitForTimeout(20);
      await phone.send('touchMove', [{ ...(await phone.place(...point)), id: 0 }]);
    }
    await until(async () => /Someone else is touching/.test(await desk.page.locator('p.state').textContent()), 'the desk says who touches');
    await desk.fingers([way([60, 224], [100, 224], 4)]); // counts for nothing
    await phone.send('touchEnd', []);
    const came = await phone.rested();
    await until(async () => (await frames(desk)) === (await frames(phone)), 'the desk has followed');
    await desk.rested();
    assert.ok((await frames(phone)) >= 7);
    assert.deepEqual(
      JSON.parse((await desk.rested()).outcome).decisions.map((one) => one.decision),
      JSON.parse(came.outcome).decisions.map((one) => one.decision),
    );
    // The desk changes a number; the phone has it.
    await desk.page.evaluate(() => ubbo_bench.session.set('frames.step', '5'));
    await phone.until(() => ubbo_bench.session.value_of('frames.step') === '5');
    await desk.until(() => ubbo_bench.link.turn === 'free');
    await desk.fingers([way([154, 224], [60, 224], 8)]); // now it is its turn
    await desk.rested();
    await until(async () => (await frames(phone)) === (await frames(desk)), 'the phone has followed');
    assert.deepEqual(desk.wrong, []);
    await desk.close();
  }));

test('the server goes and comes again: the page goes on, and is connected anew', async () => {
  const first = await serve(scene_file('inspection'));
  const view = await open(first.address);
  await view.until(() => ubbo_bench.link.open);
  const points = way([154, 224], [250, 224], 6);
  await view.send('touchStart', [{ ...(await view.place(...points[0])), id: 0 }]);
  await view.send('touchMove', [{ ...(await view.place(...points[6])), id: 0 }]);
  await first.end();
  await view.until(() => !ubbo_bench.link.open);
  await view.send('touchEnd', []);
  await view.rested(); // nothing is stuck
  await view.fingers([way([154, 224], [200, 224], 6)]);
  await view.rested();
  const second = spawn(ubbo, ['live', scene_file('inspection'), '--port', String(first.port)], { stdio: 'ignore' });
  await view.until(() => ubbo_bench.link.open);
  second.kill('SIGINT');
  await view.close();
});

test('the stage is seen before the library is there, and stays where it is when that comes', () =>
  on('hive-list', 'phone', async (view) => {
    const { page } = view;
    // The module does not come: what stays is the first look.
    await page.route('**/ubbo.wasm', () => undefined);
    await page.reload({ waitUntil: 'commit' });
    await until(() => page.evaluate(() => performance.getEntriesByName('first picture').length > 0), 'it has been seen');
    const look = () => page.evaluate(() => {
      const canvas = document.querySelector('.device:not(.a) canvas.stage');
      const { x, y, width, height } = canvas.getBoundingClientRect();
      return { place: [x, y, width, height].map(Math.round).join(), picture: canvas.toDataURL() };
    });
    await until(() => page.evaluate(() => document.fonts.check('600 12px Inter')), 'its letters have come');
    await page.waitForTimeout(200);
    const first = await look();
    assert.ok(!(await page.evaluate(() => 'ubbo_bench' in window)));
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    await page.reload({ waitUntil: 'commit' });
    await until(() => page.evaluate(() => 'ubbo_bench' in window), 'the bench is there');
    await view.rested();
    await page.waitForTimeout(200);
    const then = await look();
    assert.equal(then.place, first.place);
    const other = await page.evaluate(async (addresses) => {
      const [a, b] = await Promise.all(addresses.map(async (address) => {
        const image = new Image();
        image.src = address;
        await image.decode();
        const c = new OffscreenCanvas(image.width, image.height).getContext('2d');
        c.drawImage(image, 0, 0);
        return c.getImageData(0, 0, image.width, image.height).data;
      }));
      return a.filter((value, i) => Math.abs(value - b[i]) > 32).length / a.length;
    }, [first.picture, then.picture]);
    assert.ok(other < 0.001, `${100 * other}% of it is drawn otherwise`);
  }, { colorScheme: 'dark' }));

test('an exported file opens from disk and does the same', async () => {
  const file = join(there.path, 'photos.html');
  execFileSync(ubbo, ['live', scene_file('photos'), '--export', file]);
  const view = await open(`file://${file}`);
  await view.fingers([way([260, 300], [90, 300], 8)], 10);
  await same_as_replay('photos', view);
  await view.until(() => [...ubbo_bench.images.values()].every((image) => image.naturalWidth > 0) && ubbo_bench.images.size > 3);
  assert.deepEqual(view.wrong, []);
  await view.close();
});

test('takes at hand: kept with what was meant, run after each change, swept, and asked of a hand', () =>
  on('inspection', 'desk', async (view) => {
    const { page } = view;
    await page.getByRole('tab', { name: 'Takes' }).click();
    await view.fingers([way([154, 224], [218, 224], 12)]);
    await view.rested();
    await page.getByLabel('Name of the take').fill('to six');
    await page.getByLabel('What was meant').fill('six frames');
    await page.getByRole('button', { name: 'Keep last touch' }).click();
    await until(() => readdirSync(there.path).includes('inspection.to-six.take.csv'), 'it is beside the scene');
    const kept = readFileSync(join(there.path, 'inspection.to-six.take.csv'), 'utf8');
    assert.match(kept, /^# label = six frames$/m);
    assert.match(kept, /^# expectation = .*frames = \d+/m);
    const state = () => page.locator('.list li', { hasText: 'to six' }).first().locator('.state').textContent();
    await until(async () => (await state()) === 'same outcome', 'it has been run');
    await page.evaluate(() => ubbo_bench.session.set('frames.step', '5'));
    await until(async () => (await state()) === 'another outcome', 'it comes out otherwise');
    await page.locator('[data-key="frames.step"]').hover();
    await page.locator('[data-key="frames.step"] .sweep').click();
    const lane = page.locator('.lane', { hasText: 'to six' });
    await until(async () => (await lane.locator('.o0').count()) > 0 && (await lane.locator('.o1').count()) > 0, 'two outcomes are swept');
    // Ten of each gesture are asked for; what is kept has its label.
    await page.getByRole('button', { name: 'Undo', exact: true }).click();
    await page.getByRole('button', { name: 'Record gestures, guided' }).click();
    const asked = await page.locator('.ask').textContent();
    assert.match(asked, /^Drag "frames of honey" to \d$/);
    assert.match(await page.locator('.recording').textContent(), /1 of 20/);
    await view.fingers([way([154, 224], [218, 224], 12)]);
    await view.rested();
    await until(() => page.getByRole('button', { name: 'Keep it' }).isEnabled(), 'it may be kept');
    await page.getByRole('button', { name: 'Keep it' }).click();
    const recorded = () => readdirSync(there.path).find((file) => file.startsWith('inspection.drag-frames-to-'));
    await until(() => recorded() !== undefined, 'what was asked for is beside the scene');
    const last = recorded();
    assert.match(readFileSync(join(there.path, last), 'utf8'), /^# label = drag frames to \d$/m);
    await page.getByRole('button', { name: 'Stop' }).click();
  }));

test('a phone that sleeps under a finger lets it go, and goes on when it wakes', () =>
  on('hive-list', 'phone', async (view) => {
    const { page, cdp } = view;
    const seen = (state) => page.evaluate((now) => {
      Object.defineProperty(document, 'visibilityState', { value: now, configurable: true });
      document.dispatchEvent(new Event('visibilitychange'));
    }, state);
    const at = async (x, y) => [{ ...(await view.place(x, y)), id: 0 }];
    await view.send('touchStart', await at(300, 330));
    for (const x of [290, 270, 250, 230]) await view.send('touchMove', await at(x, 330));
    await view.until(() => !ubbo_bench.session.ubbo.settled(ubbo_bench.session.live));
    await seen('hidden');
    await cdp.send('Page.setWebLifecycleState', { state: 'frozen' });
    await new Promise((done) => setTimeout(done, 1500));
    await cdp.send('Page.setWebLifecycleState', { state: 'active' });
    await seen('visible');
    await view.send('touchEnd', []);
    const { take } = await view.rested();
    assert.match(take, /,cancel,/);
    assert.equal((await same_as_replay('hive-list', view)).cells.open, ''); // a swipe that was let go opens nothing
    await view.fingers([way([300, 330], [150, 330], 10)]);
    assert.notEqual((await same_as_replay('hive-list', view)).cells.open, '');
  }));

test('over the stage stand the hit areas, in the strip the thresholds, as the library tells them', () =>
  on('hive-list', 'desk', async (view) => {
    const { page } = view;
    const drawn = () => page.evaluate(() => ubbo_bench.stage.canvas.toDataURL());
    await view.fingers([way([300, 330], [150, 330], 10)]);
    await view.rested();
    const before = await drawn();
    await page.getByRole('button', { name: 'Hit areas' }).click();
    await until(async () => (await drawn()) !== before, 'the hit areas are drawn');
    const { open, row } = await page.evaluate(() => {
      const { session } = ubbo_bench;
      const row = session.readings.find(({ name }) => name === `${session.chosen}.offset.x`);
      return { row, open: Number(session.setting(`${session.chosen}.trailing`).value) };
    });
    const [least] = row.thresholds.map(({ value }) => Math.abs(value)).sort((a, b) => a - b);
    assert.ok(least > 0 && least < open, `${JSON.stringify(row.thresholds)}, opens by ${open}`);
    assert.deepEqual([...new Set(row.thresholds.map(({ way }) => way))].sort(), [-1, 0, 1].filter((way) => row.thresholds.some((one) => one.way === way)).sort());
  }));

test('the screen is turned, and what is touched there comes to what a replay comes to', () =>
  on('inspection', 'desk', async (view) => {
    const { page } = view;
    await page.getByRole('tab', { name: 'Actions' }).click();
    await page.getByRole('button', { name: 'turn the screen' }).click();
    await view.until(() => ubbo_bench.stage.canvas.width > ubbo_bench.stage.canvas.height);
    await view.rested();
    const box = await page.locator('.device:not(.a) canvas.stage').boundingBox();
    const scale = box.width / 720;
    await view.send('touchStart', [{ x: box.x + 154 * scale, y: box.y + 224 * scale, id: 0 }]);
    for (let x = 160; x < 240; x += 10) await view.send('touchMove', [{ x: box.x + x * scale, y: box.y + 224 * scale, id: 0 }]);
    await view.send('touchEnd', []);
    assert.ok((await same_as_replay('inspection', view)).cells.frames > 4);
  }));

test('a mouse hovers and turns wheels as a mouse, and a hover makes no take by itself', () =>
  on('hive-list', 'desk', async (view) => {
    const { page } = view;
    await page.getByRole('button', { name: 'Mouse', exact: true }).click();
    const over = async (x, y) => {
      const at = await view.place(x, y);
      await page.mouse.move(at.x, at.y, { steps: 4 });
      await page.waitForTimeout(250);
    };
    await over(80, 42);
    await view.until(() => ubbo_bench.stage.canvas.style.cursor === 'pointer');
    assert.equal(await page.evaluate(() => ubbo_bench.session.last), undefined);
    const at = await view.place(80, 42);
    await page.mouse.click(at.x, at.y);
    assert.equal((await same_as_replay('hive-list', view)).cells.drawer_open, true);
    await over(340, 500);
    const beside = await view.place(340, 500);
    await page.mouse.click(beside.x, beside.y);
    await view.rested();
    await over(180, 500);
    await page.mouse.wheel(0, 200);
    await page.waitForTimeout(400);
    assert.notEqual((await same_as_replay('hive-list', view)).cells.scrolled, 0);
  }));

test('by the keyboard alone: the stage, its settings and the takes are reached', () =>
  on('inspection', 'desk', async (view) => {
    const { page } = view;
    let slider = false;
    for (let i = 0; i < 150 && !slider; ++i) {
      await page.keyboard.press('Tab');
      slider = await page.evaluate(() => document.activeElement?.getAttribute('data-part') === 'frames');
    }
    assert.ok(slider);
    const before_key = await page.evaluate(() => JSON.parse(ubbo_bench.session.ubbo.cells(ubbo_bench.session.live)).frames);
    await page.keyboard.press('ArrowRight');
    await view.rested();
    const told = await page.evaluate(() => {
      const at = document.activeElement;
      return [at.getAttribute('role'), Number(at.getAttribute('aria-valuenow')), at.getAttribute('aria-label')];
    });
    assert.deepEqual(told, ['slider', before_key + 1, 'frames of honey']);
    assert.match((await view.rested()).take, /key,right/);
  }));

test('axe finds nothing, on the bench and on a phone, by day and dark', async () => {
  const axe = readFileSync(new URL('node_modules/axe-core/axe.min.js', import.meta.url), 'utf8');
  for (const colorScheme of ['light', 'dark'])
    for (const size of ['desk', 'phone']) {
      await on('hive-sheet', size, async (view) => {
        const { page } = view;
        if (size === 'desk') {
          await view.fingers([[[280, 62]]]);
          await view.rested();
        }
        for (const tab of size === 'desk' ? ['Decisions', 'Takes', 'Actions'] : ['']) {
          if (tab !== '') await page.getByRole('tab', { name: tab }).click();
          await page.waitForTimeout(150);
          await view.cdp.send('Page.setBypassCSP', { enabled: true });
          await page.evaluate(`${axe};0`);
          const { violations } = await page.evaluate(() => axe.run(document, { resultTypes: ['violations'] }));
          assert.deepEqual(violations.map((one) => [one.id, one.nodes.slice(0, 3).map((node) => node.html.slice(0, 160))]), [], `${size} ${colorScheme} ${tab}`);
        }
      }, { colorScheme, bypassCSP: true });
    }
});

test('at rest no frame is drawn; after 100,000 touches the page has no more memory than after 1,000', () =>
  on('inspection', 'desk', async (view) => {
    const { page } = view;
    await view.fingers([way([154, 224], [218, 224], 6)]);
    await view.rested();
    await page.waitForTimeout(400);
    const drawn = await page.evaluate(() => ubbo_bench.frames.length);
    await page.waitForTimeout(1000);
    assert.equal(await page.evaluate(() => ubbo_bench.frames.length), drawn);
    const touch = (count) => page.evaluate((n) => {
      const { session } = ubbo_bench;
      let now = performance.now();
      for (let done = 0; done < n; done += 100) {
        const give = (phase, x) => session.touch({ time: 0, contact: 1, phase, x, y: 224, tool: 0, pressure: 1, size: 0 }, (now += 4));
        give(0, 154);
        for (let i = 1; i < 99; ++i) give(1, 154 + (i % 50));
        give(2, 154);
        session.frame((now += 2000));
      }
    }, count);
    const memory = async () => {
      await view.cdp.send('HeapProfiler.collectGarbage');
      const { usedSize } = await view.cdp.send('Runtime.getHeapUsage');
      return { heap: usedSize, module: await page.evaluate(() => ubbo_bench.session.ubbo.memory_size()) };
    };
    await touch(1000);
    const first = await memory();
    await touch(99_000);
    const last = await memory();
    assert.ok(last.heap + last.module <= 1.05 * (first.heap + first.module), JSON.stringify({ first, last }));
  }));
