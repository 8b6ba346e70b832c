/** The three sources behind one interface: stand-in, a real board on a serial port, a serial log. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, message, openSample, plot, sheet, startFromParts, test } from './careful.ts';

/** A serial port made of text: what a board would send, and what its person does to it. */
async function plugInBoard(page: Page): Promise<void> {
  await page.addInitScript(() => {
    let feed: ReadableStreamDefaultController<Uint8Array> | null = null;
    const port = {
      readable: null as ReadableStream<Uint8Array> | null,
      open: ({ baudRate }: { baudRate: number }) => {
        Object.assign(globalThis, { openedAt: baudRate });
        port.readable = new ReadableStream({
          start: (controller) => {
            feed = controller;
          },
        });
        return Promise.resolve();
      },
      close: () => {
        port.readable = null;
        return Promise.resolve();
      },
    };
    Object.defineProperty(Navigator.prototype, 'serial', {
      configurable: true,
      get: () => ({ requestPort: () => Promise.resolve(port) }),
    });
    Object.assign(globalThis, {
      boardSends: (text: string) => feed?.enqueue(new TextEncoder().encode(text)),
      boardIsPulled: () => {
        feed?.error(new DOMException('gone', 'NetworkError'));
        port.readable = null;
      },
    });
  });
}

const send = (page: Page, text: string) =>
  page.evaluate(
    (sent) => (globalThis as unknown as { boardSends: (text: string) => void }).boardSends(sent),
    text,
  );

test('a real board is read line by line, its other names offered, its bad lines counted', async ({
  page,
}) => {
  await plugInBoard(page);
  await startFromParts(page);
  await page.getByText('A board on a serial port').click();
  await page.getByLabel('Speed').selectOption('57600');
  await page.getByRole('button', { name: 'Choose the port' }).click();
  await expect
    .poll(() => page.evaluate(() => (globalThis as unknown as { openedAt?: number }).openedAt))
    .toBe(57_600);

  await send(page, 'roof board ready\r\nA0=51');
  await send(page, '2\r\nA0=514\r\nA0=51\u0001\ufffd\r\n');
  await expect(page.getByText(/No line has named/)).toBeVisible();
  // A0 is suggested as the moisture of the probe that waits.
  const card = page.getByRole('region', { name: 'Numbers that nobody has claimed' });
  await expect(card.getByRole('radio', { name: 'moisture: B1' })).toBeChecked();
  await card.getByRole('button', { name: 'That is what it is' }).click();
  await send(page, 'A0=513\r\nA0=513\r\n');
  await expect(page.getByRole('button', { name: /^Reading now: 513 counts/ })).toBeVisible();
  await page.getByText('2 not understood').click();
  await expect(page.getByText('characters that are no text: most likely the wrong speed')).toBeVisible();

  await page.evaluate(() => (globalThis as unknown as { boardIsPulled: () => void }).boardIsPulled());
  await expect(
    page
      .getByText('The board was unplugged. Nothing read so far is lost; plug it in and connect again.')
      .first(),
  ).toBeVisible();
});

test('a port that another program holds is told in a sentence', async ({ page }) => {
  await page.addInitScript(() => {
    const port = {
      readable: null,
      open: () => Promise.reject(new DOMException('busy', 'NetworkError')),
      close: () => Promise.resolve(),
    };
    Object.defineProperty(Navigator.prototype, 'serial', {
      configurable: true,
      get: () => ({ requestPort: () => Promise.resolve(port) }),
    });
  });
  await startFromParts(page);
  await page.getByText('A board on a serial port').click();
  await page.getByRole('button', { name: 'Choose the port' }).click();
  await expect(page.getByRole('alert').getByText(/another program or tab holds it/)).toBeVisible();
});

test('pasted lines without dates are played but never kept as if they had been measured', async ({
  page,
}) => {
  await startFromParts(page);
  await page.getByText('A serial log').click();
  await page
    .getByLabel('Paste lines here')
    .fill(['512', '514', 'hello there', '513', '515', '514'].join('\n'));
  await page.getByRole('button', { name: 'Play the pasted lines' }).click();
  await expect(page.getByRole('button', { name: /^Last reading: 514 counts/ })).toBeVisible();
  await expect(page.getByText('1 not understood')).toBeVisible();
  await expect(page.getByText('Not kept in the log: its lines carry no dates')).toBeVisible();
});

test('a log with dates from a file can be kept, under its own times', async ({ page }) => {
  await startFromParts(page);
  await page.getByText('A serial log').click();
  const lines = Array.from(
    { length: 40 },
    (_, at) => `2026-03-01T06:${String(at).padStart(2, '0')}:00Z value=${1500 - at}`,
  );
  await page
    .getByLabel('Serial log file')
    .setInputFiles({ name: 'march.txt', mimeType: 'text/plain', buffer: Buffer.from(lines.join('\n')) });
  await expect(page.getByRole('button', { name: /^Last reading/ })).toBeVisible();
  await expect(page.getByText('The end of the log.').first()).toBeVisible();
  await page.getByRole('button', { name: 'Take its readings into the log' }).click();
  await expect(message(page, /40 new readings were taken in from march.txt/)).toBeVisible();
  await page.getByRole('button', { name: 'Take its readings into the log' }).click();
  await expect(message(page, /march.txt: 0 new readings/)).toBeVisible();
  await sheet(page, 'Log').click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export readings as CSV' }).click();
  const rows = (await readFile(await (await download).path(), 'utf8')).trim().split('\r\n');
  expect(rows).toHaveLength(41);
  expect(rows[1]).toMatch(/^2026-03-01T06:00:00\.000Z,Basil pot,B1,channel-\w{4},1500,,,imported$/);
});

test('two tabs on one garden: one is connected, a change made in one shows in the other', async ({
  page,
  context,
}) => {
  await openSample(page);
  const other = await context.newPage();
  await other.goto('/g/marigold-hare/bench/readout?plot=mint');
  await expect(other.getByText('Another tab is connected to this garden’s boards.')).toBeVisible();
  await other.getByRole('button', { name: 'Change this plot' }).click();
  await other.getByLabel('Plot', { exact: true }).fill('Lovage trough');
  await other.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('link', { name: /Lovage trough/ })).toBeVisible();
  // So does what the connected one writes into the log.
  await sheet(other, 'Log').click();
  await expect(other.getByRole('region', { name: 'Events' })).toBeVisible();
  await sheet(page, 'Log').click();
  await plot(page, /Lovage trough/).click();
  await page.getByLabel('Write into the log').fill('Aphids on the lovage');
  await page.getByLabel('Write into the log').press('Enter');
  await expect(other.getByText('Aphids on the lovage')).toBeVisible();
  await page.close();
  await other.goto('/g/marigold-hare/bench/readout?plot=mint');
  await expect(other.getByRole('button', { name: /^Reading now/ })).toBeVisible();
});

test('files that are no log get a sentence', async ({ page }) => {
  await startFromParts(page);
  await page.getByText('A serial log').click();
  const give = (name: string, buffer: Buffer) =>
    page.getByLabel('Serial log file').setInputFiles({ name, mimeType: 'text/plain', buffer });
  await give('empty.txt', Buffer.from(''));
  await expect(page.getByText(/There is nothing in it/)).toBeVisible();
  await give('photo.txt', Buffer.alloc(3_000_000, 0));
  await expect(page.getByText(/The file is not text/)).toBeVisible();
  await give('diary.txt', Buffer.from('Dear diary\nno numbers today'));
  await expect(
    page.getByText(/None of its 2 lines holds a reading; the first is "Dear diary"/),
  ).toBeVisible();
});

test('the stand-in answers a pour and a pulled probe', async ({ page }) => {
  await openSample(page);
  const raw = async () =>
    Number(
      ((await page.getByRole('button', { name: /^Reading now/ }).getAttribute('aria-label')) ?? '').replace(
        /\D/g,
        '',
      ),
    );
  const before = await raw();
  for (let at = 0; at < 4; at += 1) await page.getByRole('button', { name: 'Pour 50 ml' }).click();
  await expect.poll(raw).toBeLessThan(before - 30);
  await page.getByRole('button', { name: 'Pull the probe out' }).click();
  await expect.poll(raw, { timeout: 180_000 }).toBeGreaterThan(2600);
});

test('the sample’s faulty probe shows itself, and pushing it in again mends it', async ({ page }) => {
  await openSample(page);
  await page.getByRole('link', { name: /Mint trough/ }).click();
  const faults = page.getByRole('list', { name: 'Faults' });
  await expect(faults).toContainText('Push the plug in until it clicks');
  await page.getByRole('button', { name: 'Pull the probe out' }).click();
  await page.getByRole('button', { name: 'Push it back in' }).click();
  await expect(page.getByText('Push the plug in until it clicks')).toHaveCount(0);
  await sheet(page, 'Log').click();
  await expect(page.getByRole('cell', { name: /^into the soil/ }).first()).toBeVisible();
});

test('lines in words: each number is asked about once, with what it probably is, and a comma that may be two things as well', async ({
  page,
}) => {
  await startFromParts(page);
  await page.getByText('A serial log').click();
  const line = (n: number) =>
    `Sensor 1: ${500 + (n % 5)} air temp 21.${n % 10} C bat: 3.${90 - (n % 3)}V pump: OFF`;
  await page.getByLabel('Paste lines here').fill(Array.from({ length: 30 }, (_, n) => line(n)).join('\n'));
  await page.getByRole('button', { name: 'Play the pasted lines' }).click();
  const card = page.getByRole('region', { name: 'Numbers that nobody has claimed' });
  await expect(card.getByRole('listitem')).toHaveCount(3);
  const said = (name: string) => card.getByRole('group', { name: `What is ${name}?` });
  await expect(said('Sensor 1').getByRole('radio', { name: 'moisture: B1' })).toBeChecked();
  await expect(said('air temp').getByRole('radio', { name: 'air temperature' })).toBeChecked();
  await expect(said('bat').getByRole('radio', { name: 'battery' })).toBeChecked();
  await said('bat').getByText('ignore').click();
  await card.getByRole('button', { name: 'That is what they are' }).click();
  // Read again under what was said, with its verdict; what is ignored is not asked about again.
  await expect(page.getByRole('button', { name: /^Last reading: 50\d counts/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Verdict' })).toBeVisible();
  await expect(card).toBeHidden();
  await page.getByRole('link', { name: /^All channels 2/ }).click();
  await expect(page.getByText('air temp', { exact: true })).toBeVisible();

  await page.getByRole('link', { name: 'This probe' }).click();
  await page.getByText('Change source').click();
  await page.getByText('A serial log').click();
  await page.getByLabel('Paste lines here').fill(['2600,5', '2601,5', '2602,4'].join('\n'));
  await page.getByRole('button', { name: 'Play the pasted lines' }).click();
  await page.getByRole('button', { name: 'One: 2602.4, with a decimal comma' }).click();
  await expect(card.getByText('value', { exact: true })).toBeVisible();
});
