/** A gateway of these tests' own that is open to a network: a phone reads the picture on another screen and is in. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { expect, test, type Browser } from '@playwright/test';

const WORDS = 'seven wet marigolds';
const folder = mkdtempSync(join(tmpdir(), 'trowel-phone-'));
let gateway: ChildProcess;
let address = '';

const start = (args: readonly string[]): ChildProcess =>
  spawn(
    process.execPath,
    [
      'scripts/tied.mjs',
      'node_modules/.bin/tsx',
      'gateway/src/main.ts',
      '--data',
      folder,
      '--mqtt-port',
      '0',
      ...args,
    ],
    { stdio: ['pipe', 'ignore', 'inherit'] },
  );

test.beforeAll(async () => {
  const setting = start(['--set-passphrase']);
  setting.stdin?.end(`${WORDS}\n`);
  await new Promise((done) => setting.on('exit', done));
  const free = createServer().listen(0, '127.0.0.1');
  await new Promise((ready) => free.once('listening', ready));
  const { port } = free.address() as AddressInfo;
  await new Promise((done) => free.close(done));
  gateway = start(['--port', String(port), '--name', 'garden.localhost']);
  address = `http://garden.localhost:${port}`;
  await expect
    .poll(
      () =>
        fetch(`http://127.0.0.1:${port}/healthz`).then(
          (one) => one.ok,
          () => false,
        ),
      { timeout: 180_000 },
    )
    .toBe(true);
});
test.afterAll(() => {
  gateway.kill();
});

/** A laptop that has entered the passphrase and published its garden. */
async function laptop(browser: Browser) {
  const context = await browser.newContext({ baseURL: address });
  const page = await context.newPage();
  await page.goto('/sample');
  await page.waitForURL(/\/g\//);
  // As the page itself asks, for only the browser knows this name.
  const ask = (method: string, path: string, body: string) =>
    page.evaluate(
      async ([of, to, text]) =>
        (await fetch(to, { method: of, body: text, headers: { 'content-type': 'application/json' } })).status,
      [method, path, body] as const,
    );
  expect(await ask('POST', '/api/session', JSON.stringify({ passphrase: WORDS }))).toBe(200);
  expect(
    await ask(
      'PUT',
      '/api/gardens/marigold-hare/document?by=laptop',
      writeGardenFile(marigoldHare(Date.now())),
    ),
  ).toBe(200);
  expect(await ask('POST', '/api/gardens/marigold-hare/boards/roof/key', '{}')).toBe(200);
  return { context, page };
}

test('a phone that reads the picture has the garden, Today, and what its boards report; the picture lets nobody else in', async ({
  browser,
}) => {
  const { context, page } = await laptop(browser);
  await page.goto('/g/marigold-hare/season/today');
  const made = page.waitForResponse(/\/api\/session\/ticket$/);
  await page.getByRole('button', { name: /Open on your phone/ }).click();
  const { token } = (await (await made).json()) as { token: string };
  const dialog = page.getByRole('dialog', { name: 'Open on your phone' });
  await expect(dialog.getByRole('img')).toHaveAccessibleName(
    `Picture of the address ${address}/phone with a ticket`,
  );
  await expect(dialog).toContainText('It lets one phone in, once');
  const phone = await browser.newContext({ baseURL: address, viewport: { width: 390, height: 844 } });
  const small = await phone.newPage();
  await small.goto(`/phone#marigold-hare.${token}`);
  await expect(small).toHaveURL(/\/g\/marigold-hare\/season\/today/);
  await expect(small.getByRole('list', { name: 'Plots now' })).toContainText('Chilli crate');
  await expect(small.getByText('connected', { exact: true })).toBeVisible();
  // The ticket stands in no history, and holds no more.
  expect(small.url()).not.toContain(token);
  await small.goBack().catch(() => undefined);
  expect(small.url()).not.toContain(token);
  const thief = await browser.newContext({ baseURL: address });
  const third = await thief.newPage();
  await third.goto(`/phone#marigold-hare.${token}`);
  await expect(third.getByRole('alert')).toContainText('This ticket holds no more');
  await third.goto('/');
  await expect(third.getByLabel('Passphrase of the gateway')).toBeVisible();
  for (const one of [context, phone, thief]) await one.close();
});
