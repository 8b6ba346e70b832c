import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import http, { type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { HERE, newGateway } from './gatewayForTests.ts';
import { createListener } from './server.ts';

let server: Server;
let address = '';

beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), '<meta name="csp-nonce" content="__CSP_NONCE__">');
  writeFileSync(join(folder, 'assets/app-1a.js'), 'export {}');
  writeFileSync(join(folder, 'long.txt'), 'soil '.repeat(2000));
  await new Promise<void>(
    (ready) =>
      (server = http
        .createServer(createListener(folder, newGateway(), HERE))
        .listen(0, '127.0.0.1', () => ready())),
  );
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

test('any page address gets the app, with a nonce that the policy names', async () => {
  const response = await fetch(`${address}/g/roof/bench/readout`);
  const nonce = /content="([^"]+)"/.exec(await response.text())?.[1] ?? '';
  expect(nonce.length).toBeGreaterThan(16);
  expect(response.headers.get('content-security-policy')).toContain(`'nonce-${nonce}'`);
});

test('no two pages share a nonce', async () => {
  const page = async () => (await fetch(address)).text();
  expect(await page()).not.toBe(await page());
});

test('the policy allows no inline script and nothing from elsewhere', async () => {
  const policy = (await fetch(address)).headers.get('content-security-policy') ?? '';
  expect(policy).toContain("script-src 'self';");
  expect(policy).toContain("connect-src 'self'");
  expect(policy).not.toMatch(/unsafe|https?:/);
});

test('only the worker in which a board’s program runs may compile WebAssembly', async () => {
  const policyOf = async (path: string) =>
    (await fetch(`${address}${path}`)).headers.get('content-security-policy') ?? '';
  expect(await policyOf('/assets/board.worker-a1B2_c.js')).toContain("script-src 'self' 'wasm-unsafe-eval'");
  for (const path of [
    '/',
    '/assets/files.worker-a1B2.js',
    '/assets/x/board.worker-a1.js',
    '/board.worker-a1.js',
  ])
    expect(await policyOf(path)).not.toContain('wasm');
});

/** A request as it goes over the wire: what fetch would not let through or would change. */
const raw = (path: string, headers: Record<string, string> = {}) =>
  new Promise<{ status: number; headers: http.IncomingHttpHeaders; body: string }>((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    const request = http.get({ host: '127.0.0.1', port, path, headers }, (response) => {
      let body = '';
      response.on('data', (part: Buffer) => (body += part.toString()));
      response.on('end', () =>
        resolve({ status: response.statusCode ?? 0, headers: response.headers, body }),
      );
    });
    request.on('error', reject);
  });

test.each([
  ['an address that cannot be decoded', '/%E0%A4%A'],
  ['an asset address that cannot be decoded', '/assets/%E0%A4%A'],
  ['a way out of the folder', '/assets/..%2f..%2f..%2fetc/passwd'],
  ['a missing asset', '/assets/none.js'],
])('%s gets one plain line, without a stack or a path of this machine', async (_, path) => {
  const { status, body } = await raw(path);
  expect(status).toBeGreaterThanOrEqual(400);
  expect(status).toBeLessThan(500);
  expect(body).toBe('There is nothing at this address.');
});

test('an app that cannot be read is a plain 500', async () => {
  const empty = http
    .createServer(createListener(join(tmpdir(), 'no-such-folder'), newGateway(), HERE))
    .listen(0, '127.0.0.1');
  await new Promise((ready) => empty.once('listening', ready));
  const response = await fetch(`http://127.0.0.1:${(empty.address() as AddressInfo).port}/`);
  empty.close();
  expect([response.status, await response.text()]).toEqual([500, 'The server could not answer. Try again.']);
});

test('index.html comes with its nonce, as every page does', async () => {
  const { body } = await raw('/index.html');
  expect(body).not.toContain('__CSP_NONCE__');
});

test.each([
  ['localhost:4860', 200],
  ['127.0.0.1', 200],
  ['[::1]:4860', 200],
  ['garden.example', 403],
  ['127.0.0.1.example:80', 403],
])('asked as %j the answer is %d', async (host, status) => {
  expect((await raw('/healthz', { host })).status).toBe(status);
});

test('text is sent compressed to those who take it', async () => {
  const { headers } = await raw('/long.txt', { 'accept-encoding': 'gzip' });
  expect(headers['content-encoding']).toBe('gzip');
});

test('one rule for framing, and no more of the browser than a serial port', async () => {
  const { headers } = await raw('/');
  expect(headers['x-frame-options']).toBeUndefined();
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['permissions-policy']).toMatch(/^serial=\(self\), .*camera=\(\).*usb=\(\)/);
});

test('a missing asset or interface is a plain 404, not the app', async () => {
  expect((await fetch(`${address}/assets/none.js`)).status).toBe(404);
  expect((await fetch(`${address}/api/none`)).status).toBe(404);
  expect(await (await fetch(`${address}/healthz`)).json()).toEqual({ ok: true });
});
