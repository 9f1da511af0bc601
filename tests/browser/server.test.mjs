// What serves the page: many connections, slow readers, floods and half-open ones leave it serving; from elsewhere
// nothing is read; with --listen all is encrypted and an address counts once.
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { request as plain } from 'node:http';
import { request as encrypted } from 'node:https';
import { connect } from 'node:net';
import { join } from 'node:path';
import { after, before, test } from 'node:test';
import WebSocket from 'ws';
import { close_browser, folder, open, serve, way } from './serving.mjs';

let there;
before(() => (there = folder()));
after(async () => {
  await close_browser();
  there.gone();
});
const scene = () => join(there.path, 'inspection.scene.toml');
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** One request; what came, or the error. */
const ask = (address, path = '', headers = {}) =>
  new Promise((done) => {
    const at = new URL(path, address);
    const asked = (at.protocol === 'https:' ? encrypted : plain)(at, { headers, rejectUnauthorized: false, agent: false }, (answer) => {
      let size = 0;
      answer.on('data', (bytes) => (size += bytes.length));
      answer.on('end', () => done({ status: answer.statusCode, headers: answer.headers, size }));
    });
    asked.on('error', (error) => done({ status: 0, error }));
    asked.end();
  });
const kib = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]);
// Processor time of its own, in ticks of 10 ms.
const ticks = (pid) => {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return Number(fields[11]) + Number(fields[12]);
};
const viewer = (address, options = {}) =>
  new Promise((done, failed) => {
    const at = new URL('link', address);
    at.protocol = at.protocol.replace('http', 'ws');
    const made = new WebSocket(at, { rejectUnauthorized: false, ...options });
    made.on('message', (text) => (made.last = text));
    made.on('open', () => done(made));
    made.on('error', failed);
  });

test('200 connections, half-open sockets, floods and slow readers leave it serving, its memory flat, and idle it does nothing', async () => {
  const server = await serve(scene());
  try {
    assert.equal((await ask(server.address)).status, 200);
    const lines = [];
    // Sockets that say nothing, half a request, or nonsense.
    for (let i = 0; i < 40; ++i) {
      const socket = connect(server.port, '127.0.0.1');
      socket.on('error', () => undefined);
      if (i % 3 === 1) socket.write('GET / HTTP/1.1\r\nHost: 127');
      if (i % 3 === 2) socket.write(Buffer.from([0, 255, 22, 3, 1, 13, 10, 13, 10]));
      lines.push(socket);
    }
    const viewers = await Promise.all(Array.from({ length: 160 }, () => viewer(server.address)));
    assert.equal((await ask(server.address, 'scene.json')).status, 200);
    // One reads nothing while another one touches without end.
    const slow = viewers[0];
    slow._socket.pause();
    const touch = JSON.stringify({ what: 'given', given: Array.from({ length: 200 }, (_, i) => ({ touch: { time: i, contact: 1, phase: 1, x: i, y: 224, tool: 0, pressure: 1, size: 0 } })) });
    for (let i = 0; i < 60; ++i) viewers[1].send(touch);
    await pause(1500);
    const after_first = kib(server.pid);
    for (let round = 0; round < 2; ++round) {
      for (let i = 0; i < 60; ++i) viewers[1].send(touch);
      await pause(1200);
    }
    assert.ok(kib(server.pid) < 1.25 * after_first + 20_000, `${after_first} KiB, then ${kib(server.pid)} KiB`);
    assert.equal((await ask(server.address)).status, 200);
    // Who sends too much at once, or too many, is let go; the others stay.
    const large = await viewer(server.address);
    const gone = new Promise((done) => large.on('close', done));
    large.on('error', () => undefined);
    large.send('x'.repeat(3 << 20));
    await gone;
    const flood = await viewer(server.address);
    const flooded = new Promise((done) => flood.on('close', done));
    flood.on('error', () => undefined);
    for (let i = 0; i < 3000; ++i) flood.send('{}');
    await flooded;
    assert.match(server.log(), /too many messages/);
    assert.equal(viewers[2].readyState, WebSocket.OPEN);
    for (const one of viewers) one.terminate();
    for (const socket of lines) socket.destroy();
    await pause(500);
    assert.equal((await ask(server.address, 'ubbo.wasm')).status, 200);
    const before_idle = ticks(server.pid);
    await pause(2000);
    assert.equal(ticks(server.pid), before_idle);
  } finally {
    assert.equal(await server.end(), 0);
  }
});

test('nothing but the page is reached, and no page of another site reaches it', async () => {
  const server = await serve(scene());
  try {
    for (const path of ['inspection.scene.toml', '../inspection.scene.toml', 'images/inspection.scene.toml', '%2e%2e/%2e%2e/etc/passwd'])
      assert.equal((await ask(server.address, path)).status, 404, path);
    assert.equal((await ask(server.address, '', { host: 'elsewhere.example' })).status, 421);
    assert.equal((await ask(server.address, 'scene.json', { origin: 'http://elsewhere.example' })).status, 403);
    await assert.rejects(viewer(server.address, { origin: 'http://elsewhere.example' }));
    const { headers } = await ask(server.address);
    assert.match(headers['content-security-policy'], /default-src 'none'/);
    // All that a page fetches, packed.
    let all = 0;
    for (const path of ['', 'page.js', 'page.css', 'ubbo.wasm', 'inter-400.woff2', 'inter-600.woff2', 'scene.json']) all += (await ask(server.address, path)).size;
    assert.ok(all <= 700 * 1024, `${all} bytes`);
    // A message that is none gets a refusal and a line in the log.
    const one = await viewer(server.address);
    one.send('{"what":"save","changes":[["frames.step","-1"]]}');
    await pause(200);
    assert.equal(JSON.parse(one.last).what, 'refused');
    assert.match(server.log(), /step/);
    one.terminate();
  } finally {
    await server.end();
  }
});

test('with --listen all is encrypted, an address counts once, and a phone has what a secure page has', async () => {
  const server = await serve(scene(), ['--listen', '127.0.0.1']);
  try {
    assert.match(server.address, /^https:.*\?token=[0-9a-f]{32}$/);
    const root = new URL('/', server.address).href;
    assert.equal((await ask(root)).status, 403);
    await assert.rejects(viewer(root));
    const phone = await open(server.address, 'phone', { ignoreHTTPSErrors: true });
    assert.equal(await phone.page.evaluate(() => window.isSecureContext), true);
    assert.equal(await phone.page.evaluate(() => 'getCoalescedEvents' in PointerEvent.prototype), true);
    await phone.fingers([way([154, 224], [250, 224], 8)]);
    await phone.rested();
    assert.equal(await phone.page.evaluate(() => ubbo_bench.link.open), true);
    assert.equal((await ask(server.address)).status, 403); // it has been used
    const next = server.said().match(/https:\S+/g).at(-1);
    assert.notEqual(next, server.address);
    assert.equal((await ask(next)).status, 303);
    await phone.close();
  } finally {
    await server.end();
  }
  const without = await serve(scene(), ['--listen', '127.0.0.1', '--plain']);
  assert.match(without.address, /^http:/);
  assert.match(without.log(), /no coalesced touches/);
  await without.end();
});
