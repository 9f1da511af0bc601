// Holds ubbo's curves, and the CSS it exports, against a browser's own animation engine.
// Usage: node easing.mjs UBBO, where UBBO is the tool.
import { execFileSync } from 'node:child_process';
import { launch } from './launch.mjs';

const ubbo = process.argv[2];
const run = (...args) => execFileSync(ubbo, args, { encoding: 'utf8', maxBuffer: 1 << 28 });
const looks = Array.from({ length: 101 }, (_, i) => i / 100);

// A generator of our own, so that a run can be had again.
let state = 2026;
const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
const between = (least, most) => (least + (most - least) * random()).toFixed(4);

function easings() {
  const list = ['linear', 'ease', 'ease-in', 'ease-out', 'ease-in-out', 'step-start', 'step-end',
    'cubic-bezier(0, 0, 1, 1)', 'cubic-bezier(0, 1, 0, 1)', 'cubic-bezier(1, 0, 1, 0)', 'cubic-bezier(0, 2, 1, -1)',
    'linear(0, 0.5 20%, 0.9 60% 80%, 1)', 'linear(1, 0, 1)', 'linear(0, 1 60%, 0.2 40%, 1)', 'linear(0 20%, 1 90%)',
    'linear(0, 30% 0.2, 1.4 50%, 0.8, 0.9, 1)', 'linear(-0.5 0%, 1.5 100%)'];
  for (const jump of ['jump-start', 'jump-end', 'jump-none', 'jump-both', 'start', 'end'])
    for (const count of [2, 3, 7]) list.push(`steps(${count}, ${jump})`);
  for (let i = 0; i < 60; ++i)
    list.push(`cubic-bezier(${between(0, 1)}, ${between(-2, 3)}, ${between(0, 1)}, ${between(-2, 3)})`);
  for (let i = 0; i < 30; ++i) {
    const stops = Array.from({ length: 2 + Math.floor(random() * 5) }, () =>
      random() < 0.5 ? between(-1, 2) : `${between(-1, 2)} ${between(0, 100)}%`);
    list.push(`linear(${stops.join(', ')})`);
  }
  return list;
}

const ours = (specs, at, key = 'value') =>
  JSON.parse(run('curve', ...specs, '--json', '--at', at.join(','))).curves.map((c) => c.samples.map((s) => s[key]));

// The progress the browser itself computes for each easing at each share of the time.
const browserProgress = (page, list, at) =>
  page.evaluate(([easing, shares]) => {
    const box = document.getElementById('box');
    return easing.map((text) => {
      const animation = box.animate([{ opacity: 0 }, { opacity: 1 }], { duration: 1000, fill: 'both', easing: text });
      animation.pause();
      const values = shares.map((share) => {
        animation.currentTime = share * 1000;
        return animation.effect.getComputedTiming().progress;
      });
      animation.cancel();
      return values;
    });
  }, [list, at]);

// Inputs outside 0..1 reach a keyframe's easing through an overshooting easing of the whole. Each value is laid
// around what we expect, so that the length read back is the difference.
const browserBeyond = (page, list, at, expected) =>
  page.evaluate(([easing, inputs, values]) => {
    const box = document.getElementById('box');
    const scale = 1e6;
    return easing.map((text, i) => inputs.map((input, j) => {
      const start = -scale * values[i][j];
      const animation = box.animate(
        [{ left: `${start}px`, easing: text }, { left: `${start + scale}px` }],
        { duration: 1000, fill: 'both', easing: 'linear(-1, 2)' });
      animation.pause();
      animation.currentTime = ((input + 1) / 3) * 1000;
      const off = parseFloat(getComputedStyle(box).left) / scale;
      animation.cancel();
      return off;
    }));
  }, [list, at, expected]);

// Two corners in which the browser leaves the letter of the standard, which we keep to: below two first stops at
// one place the standard has the first one's value, and beside an end with a control point right above or below
// it the line through the other control point.
function leavesStandard(easing, input) {
  if (easing.startsWith('linear(')) {
    // Stops without a place before a smaller one come to lie where the first one is.
    const places = easing.slice(7, -1).split(',').map((stop) => parseFloat(stop.match(/([\d.]+)%/)?.[1]));
    const next = places.slice(1).find((place) => !Number.isNaN(place));
    return input < places[0] / 100 && next <= places[0];
  }
  const n = easing.match(/cubic-bezier\((.*)\)/)?.[1].split(',').map(Number);
  return n !== undefined && ((input < 0 && n[0] === 0 && n[1] !== 0) || (input > 1 && n[2] === 1 && n[3] !== 1));
}

let failures = 0;
let checks = 0;
function hold(what, difference, limit) {
  ++checks;
  if (difference <= limit) return;
  ++failures;
  console.error(`${what}: off by ${difference}, more than ${limit}`);
}

const browser = await launch();
try {
  const page = await browser.newPage();
  await page.setContent('<style>#box { position: absolute; }</style><div id="box"></div>');

  const list = easings();
  const expected = ours(list, looks);
  const slopes = ours(list, looks, 'slope');
  const shown = await browserProgress(page, list, looks);
  const compare = (inputs, difference, limit) =>
    list.forEach((easing, i) => inputs.forEach((input, j) => {
      if (!leavesStandard(easing, input)) hold(`${easing} at ${input}`, Math.abs(difference(i, j)), limit(i, j));
    }));
  // The browser's own solver stops within 1e-7 of the time, which shows where a curve is steep.
  compare(looks, (i, j) => shown[i][j] - expected[i][j], (i, j) => 1e-6 + 1e-7 * Math.abs(slopes[i][j] ?? 0));

  const inputs = [-0.9, -0.5, -0.01, 1.01, 1.3, 1.9];
  const beyond = ours(list, inputs);
  const off = await browserBeyond(page, list, inputs, beyond);
  compare(inputs, (i, j) => off[i][j], (i, j) => 2e-6 * (1 + Math.abs(beyond[i][j])));

  // What is exported stays within the error it states, read back by the browser.
  const specs = ['spring(settle 400ms, overshoot 5%)', 'spring(mass 1, stiffness 320, damping 30)',
    'spring(frequency 12, ratio 0.7)', 'spring(frequency 30, ratio 0.15)', 'coast(half-life 170ms)', 'bounce(out)',
    'elastic(in-out)', 'through(0 0, 30% 0.8, 1 1)'];
  const css = run('curve', ...specs, '--css');
  for (const [i, spec] of specs.entries()) {
    const name = `--motion-${i + 1}`;
    const easing = css.match(new RegExp(`${name}: (.*);`))[1];
    const stated = parseFloat(css.match(/off by at most ([0-9.]+) \*\/\n  --motion-N:/.source.replace('--motion-N', name))[1]);
    const bezier = css.match(new RegExp(`${name}-bezier: (.*); /\\* off by at most ([0-9.]+)`));
    const curve = JSON.parse(run('curve', spec, '--json', '--samples', '400')).curves[0].samples;
    const shares = curve.map((_, k) => k / 400);
    const [exact, fitted] = await browserProgress(page, [easing, bezier[1]], shares);
    // The last sample is the spring itself, not its last step onto the target.
    curve.slice(0, -1).forEach((sample, k) => {
      hold(`${easing} for ${spec} at ${k / 400}`, Math.abs(exact[k] - sample.value), stated + 1e-6);
      hold(`${bezier[1]} for ${spec} at ${k / 400}`, Math.abs(fitted[k] - sample.value), parseFloat(bezier[2]) + 1e-4);
    });
    hold(`${spec} at its end`, Math.abs(exact[400] - 1), 1e-12);
  }

  // Keyframes as they are exported, played by the browser.
  const keyframes = run('export', 'rise=spring(settle 400ms, overshoot 5%)', '--as', 'keyframes', '--animate', 'left: {}px',
    '--from', '400', '--to', '0');
  const rising = JSON.parse(run('curve', 'spring(settle 400ms, overshoot 5%)', '--json', '--samples', '40', '--from',
    '400', '--to', '0')).curves[0].samples;
  const lefts = await page.evaluate(([text, count]) => {
    document.head.insertAdjacentHTML('beforeend', `<style>${text} #box { animation: rise 400ms linear both paused; }</style>`);
    const box = document.getElementById('box');
    const [animation] = box.getAnimations();
    return Array.from({ length: count }, (_, k) => {
      animation.currentTime = (400 * k) / (count - 1);
      return parseFloat(getComputedStyle(box).left);
    });
  }, [keyframes, rising.length]);
  rising.slice(0, -1).forEach((sample, k) => hold(`keyframes at ${sample.t} s`, Math.abs(lefts[k] - sample.value), 0.002 * 400 + 0.03));
} finally {
  await browser.close();
}
console.log(`${checks} comparisons with the browser, ${failures} failed`);
process.exit(failures === 0 && checks > 10000 ? 0 : 1);
