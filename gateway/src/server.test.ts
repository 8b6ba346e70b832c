import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { createServer } from './server.ts';

let server: Server;
let address = '';

beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), '<meta name="csp-nonce" content="__CSP_NONCE__">');
  writeFileSync(join(folder, 'assets/app-1a.js'), 'export {}');
  await new Promise<void>((ready) => (server = createServer(folder).listen(0, '127.0.0.1', () => ready())));
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

test('a missing asset or interface is a plain 404, not the app', async () => {
  expect((await fetch(`${address}/assets/none.js`)).status).toBe(404);
  expect((await fetch(`${address}/api/none`)).status).toBe(404);
  expect(await (await fetch(`${address}/api/health`)).json()).toEqual({ ok: true });
});
