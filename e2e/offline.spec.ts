/** The page kept by the browser: it opens without its server, and a newer one waits until nobody uses the old one. */
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';

test.use({ serviceWorkers: 'allow' });

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.wasm': 'application/wasm',
  '.webmanifest': 'application/manifest+json',
};

/** A folder of files and nothing behind it, as whoever has no gateway may put the page somewhere. */
async function staticPage() {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-page-'));
  cpSync('app/dist', folder, { recursive: true });
  const server: Server = createServer((request, response) => {
    const path = (request.url ?? '/').split('?', 1)[0] ?? '/';
    const name = extname(path) === '' ? '/index.html' : path;
    try {
      const content = readFileSync(join(folder, name));
      response.writeHead(200, { 'content-type': TYPES[extname(name)] ?? 'application/octet-stream' });
      response.end(content);
    } catch {
      response.writeHead(404).end();
    }
  }).listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const { port } = server.address() as AddressInfo;
  return { folder, server, address: `http://127.0.0.1:${port}` };
}

/** Until the browser has the whole page. */
const untilKept = (page: Page) => page.evaluate(() => navigator.serviceWorker.ready.then(() => true));
const main = (page: Page) => page.getByRole('main');

test('opened once, the page and its gardens open without the gateway; what only that knows is said to be away', async ({
  page,
  context,
}) => {
  const violated: string[] = [];
  page.on('console', (message) => {
    if (message.text().startsWith('policy violated')) violated.push(message.text());
  });
  await page.addInitScript(() => {
    addEventListener('securitypolicyviolation', (event) => {
      console.error(`policy violated: ${event.violatedDirective} ${event.blockedURI}`);
    });
  });
  await page.goto('/sample');
  await page.waitForURL(/\/g\//);
  await untilKept(page);
  await expect(page.locator('main[data-saving=true]')).toHaveCount(0);
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Reading now/ })).toBeVisible();
  // Sheets that were never opened come from what is kept, code, fonts and workers as well.
  for (const [sheet, sign] of [
    ['Wiring', /checks passed/],
    ['Sketch', /its program/],
    ['Today', /.+/],
    ['Log', /.+/],
  ] as const) {
    await page.getByRole('link', { name: sheet, exact: true }).click();
    await expect(main(page).getByRole('heading', { level: 1 })).toContainText(sign);
  }
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  // What the gateway knows is never answered from what is kept.
  expect(
    await page.evaluate(() =>
      fetch('/api/gardens').then(
        () => 'answered',
        () => 'away',
      ),
    ),
  ).toBe('away');
  expect(violated).toEqual([]);
});

test('a newer page waits, says so, and takes over once the old one is closed; the page needs no gateway', async ({
  browser,
}) => {
  const { folder, server, address } = await staticPage();
  const context = await browser.newContext({ baseURL: address, serviceWorkers: 'allow' });
  const page = await context.newPage();
  await page.goto('/sample');
  await page.waitForURL(/\/g\//);
  await untilKept(page);
  // From the second time on it comes from what is kept.
  await page.reload();
  const index = join(folder, 'index.html');
  const title = (text: string) =>
    readFileSync(index, 'utf8').replace(/<title>.*<\/title>/, `<title>${text}</title>`);
  writeFileSync(index, title('Plain Trowel, newer'));
  // As a build that changed the page writes it.
  const worker = join(folder, 'sw.js');
  writeFileSync(
    worker,
    readFileSync(worker, 'utf8').replace(/("url":"\/index\.html","revision":")\w+/, '$1newer'),
  );
  await page.evaluate(() => navigator.serviceWorker.ready.then((one) => one.update()));
  const note = page.getByRole('note').filter({ hasText: 'A newer version of this page has come' });
  await expect(note).toBeVisible();
  // Loaded again it is still the old one, whole.
  await page.reload();
  await expect(note).toBeVisible();
  expect(await page.title()).not.toContain('newer');
  await page.close();
  // The browser changes over when it has seen that the last tab is gone.
  const opened = async () => {
    const tab = await context.newPage();
    await tab.goto('/');
    const seen = await tab.title();
    await tab.close();
    return seen;
  };
  await expect.poll(opened).toContain('newer');
  const again = await context.newPage();
  await again.goto('/sample');
  await again.waitForURL(/\/g\//);
  await expect(again.getByRole('note').filter({ hasText: 'newer version' })).toHaveCount(0);
  await context.close();
  server.close();
});
