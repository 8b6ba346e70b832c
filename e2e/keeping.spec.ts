/** Nothing typed is lost, nothing recorded is changed: storage that fails, gardens that do not open, files that contradict the record, and the way back. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, message, openSample, plot, sheet, startFromParts, test, reload } from './careful.ts';

const give = (page: Page, field: string, name: string, content: string | Buffer) =>
  page
    .getByLabel(field)
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) });

const saved = async (page: Page, press: () => Promise<unknown>): Promise<Buffer> => {
  const download = page.waitForEvent('download');
  await press();
  return readFile(await (await download).path());
};

/** Counts of one store's records, by what is asked of each. */
const stored = (page: Page, store: string) =>
  page.evaluate(
    (name) =>
      new Promise<number>((resolve) => {
        const open = indexedDB.open('plain-trowel');
        open.onsuccess = () => {
          const count = open.result.transaction(name).objectStore(name).count();
          count.onsuccess = () => {
            open.result.close();
            resolve(count.result);
          };
        };
      }),
    store,
  );

/** Changes the stored document behind the page's back, as a fault would. */
const damage = (page: Page, change: Record<string, unknown>) =>
  page.evaluate(
    (changed) =>
      new Promise<void>((resolve) => {
        const open = indexedDB.open('plain-trowel');
        open.onsuccess = () => {
          const tx = open.result.transaction('gardens', 'readwrite');
          const store = tx.objectStore('gardens');
          const get = store.get('marigold-hare');
          get.onsuccess = () => {
            const record = get.result as { doc: Record<string, unknown> };
            store.put({ ...record, doc: { ...record.doc, ...changed } });
          };
          tx.oncomplete = () => {
            open.result.close();
            resolve();
          };
        };
      }),
    change,
  );

const ROW = '2026-03-01T06:30:05Z,channel-c2';

test('a file that contradicts the record is asked about, is one step to undo, and the same file again is 0 new', async ({
  page,
}) => {
  await openSample(page);
  await sheet(page, 'Log').click();
  await give(page, 'Readings CSV file', 'first.csv', `time,channel,raw\n${ROW},1500\n`);
  await expect(message(page, /1 new reading was taken in from first.csv/)).toBeVisible();
  const other = `time,channel,raw\n${ROW},1600\n2026-03-01T06:31:05Z,channel-c2,1501\n`;
  await give(page, 'Readings CSV file', 'other.csv', other);
  const question = page.getByRole('dialog', { name: 'other.csv differs from the record' });
  await expect(question).toContainText(
    '1 reading of the file has a time that is recorded with another value',
  );
  await expect(question.getByRole('row').nth(1)).toContainText(/06:30:05.*C2.*1.500.*1.600/);
  await question.getByRole('button', { name: 'Cancel' }).click();
  const text = async () =>
    (
      await saved(page, () => page.getByRole('button', { name: 'Export readings as CSV' }).click())
    ).toString();
  expect(await text()).not.toContain('1501');
  await give(page, 'Readings CSV file', 'other.csv', other);
  await question.getByRole('button', { name: 'Keep both, theirs marked' }).click();
  await expect(
    message(page, /2 new readings were taken in from other.csv; 1 of them stands beside/),
  ).toBeVisible();
  const both = (await text()).split('\r\n').filter((row) => row.startsWith('2026-03-01T06:30:05'));
  expect(both.map((row) => row.split(',').slice(4))).toEqual([
    ['1500', expect.any(String), 'span', 'imported'],
    ['1600', expect.any(String), 'span', 'imported beside'],
  ]);
  await give(page, 'Readings CSV file', 'other.csv', other);
  await expect(message(page, /other.csv: 0 new readings/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(text).not.toContain('1501');
  expect(await text()).toContain(',1500,');
});

test('my laptop is gone: backup, everything cleared, opened again, nothing missing', async ({
  page,
  context,
}) => {
  await openSample(page);
  await sheet(page, 'Log').click();
  await page.getByLabel('Write into the log').fill('yellow leaf on the left');
  await page.getByRole('button', { name: 'Write it' }).click();
  await expect(page.getByRole('cell', { name: 'yellow leaf on the left' })).toBeVisible();
  const zip = await saved(page, () => page.getByRole('button', { name: 'Save a backup' }).click());
  const said = /The backup holds the garden with ([\d\s]+) readings and (\d+) events/;
  const [, readings = '', events = ''] = said.exec((await message(page, said).textContent()) ?? '') ?? [];
  await page.goto('/');
  const session = await context.newCDPSession(page);
  await session.send('Storage.clearDataForOrigin', {
    origin: new URL(page.url()).origin,
    storageTypes: 'all',
  });
  await reload(page);
  await expect(page.getByRole('region', { name: 'Your gardens' })).toHaveCount(0);
  await give(page, 'Garden file', 'backup.zip', zip);
  await page.waitForURL(/bench\/readout/);
  await expect(message(page, new RegExp(`with ${readings} readings and ${events} events`))).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Plots' }).getByRole('link')).toHaveCount(4);
  await plot(page, /Chilli/).click();
  await sheet(page, 'Log').click();
  await expect(page.getByRole('cell', { name: 'yellow leaf on the left' })).toBeVisible();
  // It goes on: the boards run with what they remembered, and the same backup brings nothing.
  await sheet(page, 'Readout').click();
  await page.getByRole('button', { name: 'Start the stand-in boards' }).click();
  await expect(page.getByRole('button', { name: /^Reading now/ })).toBeVisible();
  await give(page, 'Garden file', 'backup.zip', zip);
  await expect(page.getByText('0 new: everything in this backup is here already.')).toBeVisible();
});

test('a garden that does not open offers its last good version', async ({ page }) => {
  await openSample(page);
  await page.goto('/');
  await damage(page, { logEveryS: 0 });
  await page.goto('/g/marigold-hare/bench/readout');
  await expect(page.getByRole('heading', { name: 'This garden does not open' })).toBeVisible();
  const file = await saved(page, () => page.getByRole('button', { name: /^Save it as a file/ }).click());
  expect(JSON.parse(file.toString())).toMatchObject({ logEveryS: 0, name: 'The Marigold Hare' });
  await page.getByRole('button', { name: 'Open that version' }).click();
  await expect(plot(page, /Chilli/)).toBeVisible();
});

test('a garden that does not open is mended field by field', async ({ page }) => {
  await openSample(page);
  await page.goto('/');
  await damage(page, { logEveryS: 0, hue: 3, note: 'x'.repeat(401) });
  await page.goto('/g/marigold-hare/bench/readout');
  const list = page.getByRole('region', { name: 'Mend it here' });
  await expect(list.getByRole('heading')).toHaveText('3 fields do not fit');
  const row = (name: RegExp) => list.getByRole('listitem').filter({ hasText: name });
  await row(/Log interval: at least 1 s/)
    .getByLabel('Another number')
    .fill('20');
  await row(/Log interval/)
    .getByRole('button', { name: 'Put it there' })
    .click();
  await row(/Hue: is a field that no garden has/)
    .getByRole('button', { name: /Leave the field/ })
    .click();
  await row(/Note: at most 400 characters/)
    .getByRole('button', { name: /Make it/ })
    .click();
  await expect(list.getByRole('heading')).toHaveText('Everything fits now');
  await page.getByRole('button', { name: 'Keep the corrected garden and open it' }).click();
  await expect(plot(page, /Chilli/)).toBeVisible();
  await expect(page.getByText('Log one each 20 s')).toBeVisible();
});

test('a garden file that does not fit is mended before it is kept', async ({ page }) => {
  await openSample(page);
  await page
    .getByRole('button', { name: /Garden menu|Marigold/ })
    .first()
    .click();
  const text = await saved(page, () => page.getByRole('menuitem', { name: 'Export garden.json' }).click());
  await give(page, 'Garden file', 'wrong.json', text.toString().replace('"depthCm": 7', '"depthCm": 1e309'));
  await expect(page.getByRole('heading', { name: 'wrong.json does not open' })).toBeVisible();
  await page.getByLabel('Another number').fill('7');
  await page.getByRole('button', { name: 'Put it there' }).click();
  await page.getByRole('button', { name: 'Keep the corrected garden and open it' }).click();
  await page.waitForURL(/bench\/readout/);
  await expect(plot(page, /Chilli/)).toBeVisible();
});

type Write = (value: unknown, key?: IDBValidKey) => IDBRequest<IDBValidKey>;

/** A disk that the test can fill and empty. */
const withDisk = (page: Page) =>
  page.addInitScript(() => {
    const disk = { isFull: false };
    Object.assign(window, { disk });
    for (const name of ['put', 'add'] as const) {
      const write = Object.getOwnPropertyDescriptor(IDBObjectStore.prototype, name)?.value as Write;
      IDBObjectStore.prototype[name] = function (...args) {
        if (disk.isFull) throw new DOMException('no room', 'QuotaExceededError');
        return Reflect.apply(write, this, args);
      };
    }
  });
const fill = (page: Page, isFull: boolean) =>
  page.evaluate((full) => {
    (window as unknown as { disk: { isFull: boolean } }).disk.isFull = full;
  }, isFull);

test('a full disk: told on every sheet, what waits is counted and can be saved, typed words stay, and all is written later', async ({
  page,
}) => {
  await withDisk(page);
  await openSample(page);
  await fill(page, true);
  const notice = page.getByRole('alert').filter({ hasText: 'The disk is full' });
  await expect(notice).toContainText(/\d+ readings wait in this page/);
  for (const name of ['Parts', 'Calibrate', 'Limits', 'Log']) {
    await sheet(page, name).click();
    await expect(notice).toBeVisible();
  }
  await page.getByLabel('Write into the log').fill('fed in the storm');
  await page.getByRole('button', { name: 'Write it' }).click();
  await expect(page.getByLabel('Write into the log')).toHaveValue('fed in the storm');
  await expect(page.getByRole('button', { name: 'Write it' })).toBeDisabled();
  await sheet(page, 'Limits').click();
  const start = page.getByRole('textbox', { name: 'Start limit' }).first();
  await start.fill('31.5');
  await start.press('Enter');
  await expect(message(page, /The change was not saved. The disk is full/)).toBeVisible();
  await expect(start).toHaveValue('31.5');
  const zip = await saved(page, () =>
    notice.getByRole('button', { name: /Save what this page holds/ }).click(),
  );
  expect(zip.subarray(0, 2).toString()).toBe('PK');
  await notice.getByRole('button', { name: 'Try again' }).click();
  await expect(message(page, /It still does not work/)).toBeVisible();
  await notice.getByRole('link', { name: 'Have fewer old readings' }).click();
  await expect(page.getByRole('button', { name: 'Thin out old days' })).toBeInViewport();
  // The browser asks before the page is left.
  let asked = false;
  page.once('dialog', (dialog) => {
    asked = true;
    void dialog.dismiss();
  });
  await page.evaluate(() => setTimeout(() => location.reload(), 0));
  await expect.poll(() => asked).toBe(true);
  await fill(page, false);
  await expect(notice).toHaveCount(0);
  await sheet(page, 'Log').click();
  await expect(page.getByLabel('Write into the log')).toHaveValue('');
  await expect(page.getByRole('cell', { name: 'fed in the storm' })).toHaveCount(1);
});

test('site data cleared while the page is open is told as that, and the garden can be stored again', async ({
  page,
  context,
}) => {
  await openSample(page);
  const session = await context.newCDPSession(page);
  await session.send('Storage.clearDataForOrigin', {
    origin: new URL(page.url()).origin,
    storageTypes: 'indexeddb',
  });
  const notice = page.getByRole('alert').filter({ hasText: 'no longer in the browser’s storage' });
  await expect(notice).toBeVisible();
  await notice.getByRole('button', { name: 'Store the garden again' }).click();
  await expect(message(page, /The garden is in the browser’s storage again/)).toBeVisible();
  await expect(notice).toHaveCount(0);
  expect(await stored(page, 'gardens')).toBe(1);
  await reload(page);
  await expect(plot(page, /Chilli/)).toBeVisible();
});

test('a browser that gives no storage says so on the first page', async ({ page }) => {
  await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }));
  await page.goto('/');
  await expect(page.getByRole('alert')).toContainText('The browser gives this page no storage');
  await page.getByRole('button', { name: /Open the sample garden/ }).click();
  await expect(page.getByRole('alert')).toContainText('The sample garden could not be stored');
});

test('storage that never answers is told after a while', async ({ page }) => {
  await page.addInitScript(() => {
    const open = Object.getOwnPropertyDescriptor(IDBFactory.prototype, 'open')?.value as (
      name: string,
    ) => IDBOpenDBRequest;
    IDBFactory.prototype.open = function () {
      const request = Reflect.apply(open, this, ['elsewhere']);
      request.addEventListener = () => undefined;
      return request;
    };
  });
  await page.goto('/g/marigold-hare/bench/readout');
  await expect(page.getByRole('heading', { name: 'The browser’s storage cannot be read' })).toBeVisible();
  await expect(page.getByText('The browser’s storage does not answer.')).toBeVisible();
});

test('without locks and channels between tabs the page says what it cannot see, and works', async ({
  page,
}) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(Navigator.prototype, 'locks');
    Reflect.deleteProperty(window, 'BroadcastChannel');
  });
  await openSample(page);
  const note = page
    .getByRole('note')
    .filter({ hasText: 'cannot tell whether the garden is open in another tab' });
  await expect(note).toContainText('Changes made in another tab are not seen here');
  await note.getByRole('button', { name: 'Put away' }).click();
  await expect(note).toHaveCount(0);
});

test('a log with twenty thousand names does not hold the page up', async ({ page }) => {
  await startFromParts(page);
  await page.getByText('A serial log').click();
  const lines = Array.from({ length: 20_000 }, (_, at) => `n${at}=${at % 4096}`);
  await give(page, 'Serial log file', 'names.log', lines.join('\n'));
  await expect(page.getByText('The end of the log.').first()).toBeVisible({ timeout: 180_000 });
  const began = Date.now();
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => done(null))));
  expect(Date.now() - began).toBeLessThan(2000);
});

test('records that cannot be read are told, kept aside, and break no sheet', async ({ page }) => {
  await openSample(page);
  await page.goto('/');
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const open = indexedDB.open('plain-trowel');
        open.onsuccess = () => {
          const tx = open.result.transaction(['blocks', 'links', 'events'], 'readwrite');
          const blocks = tx.objectStore('blocks');
          const all = blocks.getAll();
          all.onsuccess = () => {
            for (const block of all.result as { channelId: string }[])
              if (block.channelId === 'channel-c2') blocks.put({ ...block, rows: 1_000_000 });
          };
          tx.objectStore('links').put({ id: 'marigold-hare', world: { pots: 7 }, openAtStart: true });
          tx.objectStore('events').put(
            { gardenId: 'marigold-hare', atMs: Date.now() - 1000, event: 5 },
            'odd',
          );
          tx.oncomplete = () => {
            open.result.close();
            resolve();
          };
        };
      }),
  );
  await page.goto('/g/marigold-hare/season/log?plot=chilli');
  await expect(message(page, /could not be read. It is kept aside/)).toBeVisible();
  await expect(
    page.getByRole('alert').filter({ hasText: /The readings of .* cannot be read/ }),
  ).toContainText('1 event of this stretch cannot be read');
  const aside = page.getByRole('region', { name: 'Kept aside' });
  await expect(aside).toContainText('What the stand-in boards remembered');
  const file = await saved(page, () => aside.getByRole('button', { name: 'Save them as a file' }).click());
  // Once a reading of today has come, the day that it could not be put into stands there as well.
  const kept = JSON.parse(file.toString()) as { what: string }[];
  expect(kept.filter((one) => one.what !== 'day')).toMatchObject([{ what: 'stand-in', record: { pots: 7 } }]);
  for (const name of ['Readout', 'Calibrate', 'Dose', 'Limits', 'Parts', 'Wiring']) {
    await sheet(page, name).click();
    await expect(page.getByRole('main')).not.toBeEmpty();
    await expect(page.getByText('something went wrong', { exact: false })).toHaveCount(0);
  }
});

test('the first reading of a real probe asks the browser to keep it, and says what the browser answered', async ({
  page,
}) => {
  await startFromParts(page);
  await page.getByText('A serial log').click();
  const lines = '2026-03-01T06:30:05Z value=1500\n2026-03-01T06:31:05Z value=1501\n';
  await give(page, 'Serial log file', 'real.log', lines);
  await page.getByRole('button', { name: 'Take its readings into the log' }).click();
  await expect(message(page, /The first reading of a real probe is in the log/)).toContainText(
    /The browser has (not )?promised to keep this site’s data/,
  );
  await sheet(page, 'Log').click();
  await expect(page.getByRole('region', { name: 'Backup' })).toContainText('No backup has been saved');
});

test('the licences of what is shipped are linked from the help', async ({ page }) => {
  await openSample(page);
  await page.keyboard.press('?');
  const link = page.getByRole('link', { name: 'Licences of what it is made with' });
  const answer = await page.request.get((await link.getAttribute('href')) ?? '');
  expect(await answer.text()).toContain('SIL OPEN FONT LICENSE');
});
