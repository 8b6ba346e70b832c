/** A certificate signed by a throwaway authority of the tests, for 127.0.0.1; the authority's own key is kept nowhere. */
import { readFileSync } from 'node:fs';
import https from 'node:https';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { HERE, newGateway } from './gatewayForTests.ts';
import { createListener } from './server.ts';
import { readTls } from './tls.ts';

const NOON = Date.UTC(2026, 10, 28, 12);
const file = (name: string) => join(import.meta.dirname, 'tlsForTests', name);
const files = (cert = 'garden.crt', key = 'garden.key') => ({ cert: file(cert), key: file(key) });

describe('a certificate', () => {
  test('and its key are read', () => {
    expect(readTls(files(), NOON)).toMatchObject({ ok: true });
  });
  test.each([
    [files('none.crt'), NOON, /none\.crt cannot be read/],
    [files('garden.crt', 'none.key'), NOON, /none\.key cannot be read/],
    [files('garden.key'), NOON, /is no certificate/],
    [files('garden.crt', 'garden.crt'), NOON, /is no private key/],
    [files('garden.crt', 'other.key'), NOON, /is the key of another certificate/],
    [files(), Date.UTC(2200, 0), /ended on .* Make a new one/],
  ])('%j is refused in one sentence', (given, nowMs, said) => {
    const read = readTls(given, nowMs);
    expect(!read.ok && read.issue).toMatch(said);
  });
});

test('the gateway speaks TLS to whoever trusts its authority, and to nobody else', async () => {
  const read = readTls(files(), NOON);
  if (!read.ok) throw new Error(read.issue);
  const gateway = newGateway(() => NOON);
  const server = https.createServer(
    read.value,
    createListener('/no-such-app', gateway, { ...HERE, isSecure: true, isOpen: true }),
  );
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  await gateway.owner.setPassphrase('seven wet marigolds');
  const { port } = server.address() as AddressInfo;
  const ask = (ca: Buffer | undefined, path: string, body?: string) =>
    new Promise<{ status: number | undefined; cookie: string }>((done, failed) => {
      const request = https.request(
        {
          host: '127.0.0.1',
          port,
          path,
          ca,
          method: body === undefined ? 'GET' : 'POST',
          headers: body === undefined ? {} : { 'content-type': 'application/json' },
        },
        (response) => {
          response.resume();
          done({ status: response.statusCode, cookie: String(response.headers['set-cookie'] ?? '') });
        },
      );
      request.on('error', failed);
      request.end(body);
    });
  const authority = readFileSync(file('authority.crt'));
  expect((await ask(authority, '/healthz')).status).toBe(200);
  await expect(ask(undefined, '/healthz')).rejects.toThrow(/certificate|issuer/);
  const entered = await ask(authority, '/api/session', JSON.stringify({ passphrase: 'seven wet marigolds' }));
  expect(entered.cookie).toContain('; Secure; ');
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
  await gateway.close();
});
