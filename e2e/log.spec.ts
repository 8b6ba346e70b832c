/** The log over any span: an imported May is seen in November, moved through by hand and keys, and the newest comes back. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, message, openSample, plot, sheet, test } from './careful.ts';

const MAY = Date.UTC(2026, 4, 1);
const MINUTE = 60_000;

/** A month of a reading every ten minutes: falls by a count each, and is watered back every day at noon UTC. */
const mayCsv = (): string =>
  [
    'time,plot,probe,channel,raw,percent,percent_kind,flags',
    ...Array.from({ length: 31 * 144 }, (_, at) => {
      const time = new Date(MAY + at * 10 * MINUTE).toISOString();
      return `${time},Chilli crate,C2,channel-c2,${1900 + ((at + 72) % 144)},,,`;
    }),
  ].join('\r\n');

test('an imported May is shown in November, whole, by days, earlier and later; by keys and by the hand; and the newest again', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Log').click();
  const title = page.getByRole('heading', { level: 1 });
  await expect(title).toContainText('latest reading');
  await page
    .getByLabel('Readings CSV file')
    .setInputFiles({ name: 'may.csv', mimeType: 'text/csv', buffer: Buffer.from(mayCsv()) });
  await expect(message(page, /4\s?464 new readings/)).toBeVisible();
  // Nothing of May in the last day; all of it with one press.
  await page.getByRole('button', { name: 'All of it' }).click();
  await expect(page.getByLabel('From the day')).toHaveValue('2026-05-01');
  // The sums go by what a probe read, and say that the stand-ins of today are left out.
  await expect(page.getByText(/those of stand-ins among them left out of change and swing/)).toBeVisible();

  const from = page.getByLabel('From the day');
  const to = page.getByLabel('To the day');
  await from.fill('2026-05-03');
  await to.fill('2026-05-04');
  await expect(title).toContainText('on Mon 4 May, 23:50');
  // Two days of 144 readings; London is an hour ahead of the times in the file.
  await expect(page.getByText(/^From 3 May 2026 to 4 May 2026: (rose|fell) by/).locator('..')).toContainText(
    '288 readings',
  );

  const chart = page.getByRole('group', { name: /^Chart: left and right/ });
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect(from).toHaveValue('2026-05-02');
  await chart.focus();
  await page.keyboard.press('PageDown');
  await expect(from).toHaveValue('2026-05-04');
  await page.keyboard.press('PageUp');
  await page.keyboard.press('+');
  await expect(page.getByText(/(rose by|fell by|hardly moved)/i).locator('..')).toContainText(
    /14\d readings/,
  );
  await page.keyboard.press('-');
  // Dragged to the right by half of its width, it shows what was a day before.
  const box = await chart.boundingBox();
  if (!box) throw new Error('no chart');
  const half = (box.width - 62) / 2;
  await page.mouse.move(box.x + 100, box.y + 100);
  await page.mouse.down();
  await page.mouse.move(box.x + 100 + half, box.y + 100, { steps: 5 });
  await page.mouse.up();
  await expect(from).toHaveValue('2026-05-01');
  // Pointed at, the chart tells what was read then, and when.
  const cursor = page.getByLabel('At the cursor');
  await page.mouse.move(box.x + 62 + half, box.y + 80);
  await expect(cursor).toContainText(/C2 .*% span \(1\s9\d\d counts\)/);
  await page.mouse.move(box.x + 62 + half, box.y - 60);
  await expect(cursor).toHaveCount(0);
  // So do the keys, from the newest end on.
  await page.getByRole('group', { name: /^Chart/ }).press('Shift+ArrowLeft');
  await expect(cursor).toContainText(/C2 .*% span/);
  await page.keyboard.press('Escape');
  await expect(cursor).toHaveCount(0);
  // The chart leaves as a picture: as lines with the words of its scale, and as it stands on the screen.
  const svg = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save it as SVG' }).click();
  const file = await svg;
  expect(file.suggestedFilename()).toMatch(/^chilli-crate-span-.*2026-0[45]-\d\d\.svg$/);
  const text = readFileSync(await file.path(), 'utf8');
  expect(text).toContain('<title>Chilli crate, % span, ');
  expect(text).toMatch(/<path d="M[\d.]+ [\d.]+L/);
  const png = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the chart as PNG' }).click();
  const bytes = readFileSync(await (await png).path());
  expect(bytes.subarray(1, 4).toString('latin1')).toBe('PNG');
  expect(bytes.length).toBeGreaterThan(5000);
  // Another channel below it, over the same time, in its own unit; what was not read then says so.
  await page.getByText('Also show', { exact: true }).click();
  await page.getByRole('checkbox', { name: 'Battery' }).check();
  const beside = page.getByRole('region', { name: 'Also over this time' });
  await expect(beside.getByText('Nothing was read in this stretch of time.')).toBeVisible();
  await page.getByRole('button', { name: 'All of it' }).click();
  await expect(beside.getByRole('img', { name: 'Battery over the same time, V' })).toBeVisible();
  // What is looked at stays from plot to plot.
  await from.fill('2026-05-10');
  await to.fill('2026-05-11');
  await plot(page, /Lemon barrel/).click();
  await expect(from).toHaveValue('2026-05-10');
  await plot(page, /Chilli crate/).click();
  // The season day by day: a day is read by keys, and shown by Enter.
  await page.getByText('The season, day by day, all plots').click();
  const days = page.getByRole('group', { name: /^Days:/ });
  await expect(
    days.getByRole('img', { name: /^Chilli crate: \d+ days read, watered on \d+ days?/ }),
  ).toBeVisible();
  await expect(days.getByRole('img', { name: /^Strawberry gutter: no day with a percent/ })).toBeVisible();
  await days.focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('group', { name: 'The day pointed at' })).toContainText(
    /Chilli crate [\d.]+ % span to [\d.]+ % span, mean [\d.]+ % span, mostly (low|right|wet).*Strawberry gutter no percent yet/,
  );
  await expectAccessible(page);
  const before = await from.inputValue();
  await page.keyboard.press('Enter');
  await expect(from).not.toHaveValue(before);
  await expect(from).toHaveValue(await to.inputValue());
  // A summer without readings says where they are.
  await from.fill('2026-07-01');
  await to.fill('2026-07-31');
  await expect(page.getByText(/The log holds readings from 1 May 2026 to/)).toBeVisible();
  await page.getByRole('button', { name: 'Newest' }).click();
  await page.getByText('24 h', { exact: true }).click();
  await expect(title).toContainText('latest reading');
});

const giving = (page: Page) => (name: string, text: string) =>
  page
    .getByLabel('Readings CSV file')
    .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

test('a table of another program is looked at first: what could be meant in two ways is asked, what is wrong is told by its row, and one press takes it back', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Log').click();
  const give = giving(page);
  const rows = Array.from(
    { length: 12 },
    (_, at) =>
      `03/05/2026 ${String(8 + Math.floor(at / 6)).padStart(2, '0')}:${at % 6}0;${1800 + at};${1900 + at};-61`,
  );
  await give('logger.csv', `Date/Time;Chilli crate;Lemon;rssi\n${rows.join('\n')}\n`);
  const dialog = page.getByRole('dialog', { name: 'How to read logger.csv' });
  const take = dialog.getByRole('button', { name: /^Take in/ });
  await expect(dialog.getByText('2 questions are open.')).toBeVisible();
  await expect(take).toBeDisabled();
  await expect(dialog.getByText('Left out: rssi (no probe of this garden is called so).')).toBeVisible();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: '5 March 2026' }).click();
  await expect(dialog.getByText(/taken on 5 March 2026/)).toBeVisible();
  // Changed its mind: the order is a field as well.
  await dialog.getByLabel('Times are written as').selectOption({ label: 'day, month, year' });
  await dialog.getByRole('button', { name: 'Lemon barrel, L1' }).click();
  await expect(dialog.getByText(/24\s*readings.*of 2 channels.*taken on 3 May 2026/)).toBeVisible();
  // London is an hour ahead of UTC in May; the row says which it is.
  await expect(
    dialog.getByRole('row', { name: /3 May 2026, 08:00:00 Chilli crate, C2 1800 raw counts/ }),
  ).toBeVisible();
  await take.click();
  await expect(message(page, /24 new readings were taken in from logger\.csv/)).toBeVisible();
  await page.getByRole('button', { name: 'All of it' }).click();
  await expect(page.getByLabel('From the day')).toHaveValue('2026-05-03');
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await expect(async () => {
    await page.getByRole('button', { name: 'All of it' }).click();
    await expect(page.getByLabel('From the day')).not.toHaveValue('2026-05-03', { timeout: 1000 });
  }).toPass();
  // All or nothing: a row that cannot be read holds back the rest, and says where it is.
  await give(
    'wrong.csv',
    'time,Chilli crate\n2026-05-03 10:00,1800\n2026-05-03 10:10,1801\n2026-05-03 10:20,lots\n',
  );
  const wrong = page.getByRole('dialog', { name: 'How to read wrong.csv' });
  await expect(wrong.getByText('Row 4: "lots" in Chilli crate is no number')).toBeVisible();
  await expect(wrong.getByRole('button', { name: /^Take in/ })).toBeDisabled();
  await wrong.getByRole('button', { name: 'Cancel' }).click();
  await give('diary.csv', 'Dear diary,\nit rained.\n');
  await expect(message(page, /No rows with times and numbers/)).toBeVisible();
});

test('a serial log with dates and SenML come in by the names that boards print; readings are deleted on purpose and put back', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Log').click();
  const give = giving(page);
  await give(
    'shed.log',
    'ready\n2026-05-04T10:00:00Z c2=1800 l1=1900\n2026-05-04T10:10:00Z c2=1801 l1=1901\n',
  );
  const log = page.getByRole('dialog', { name: 'How to read shed.log' });
  await expect(log.getByText('It is a serial log with dates, shown here as a table.')).toBeVisible();
  await log.getByRole('button', { name: 'Take in 4 readings' }).click();
  await expect(message(page, /4 new readings were taken in from shed\.log/)).toBeVisible();
  const senml = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As SenML' }).click();
  const pack = readFileSync(await (await senml).path(), 'utf8');
  // Of the stand-ins nothing: the four of the log alone.
  expect(JSON.parse(pack)).toHaveLength(4);
  expect(pack).toContain('{"n":"channel-c2","u":"count","t":1777888800,"v":1800}');
  await give('back.senml', pack);
  const back = page.getByRole('dialog', { name: 'How to read back.senml' });
  await back.getByRole('button', { name: 'Take in 4 readings' }).click();
  await expect(message(page, /back\.senml: 0 new readings/)).toBeVisible();
  // Deleted on purpose, and put back.
  await page.getByText('What the readings take, and having fewer').click();
  await expect(page.getByRole('row', { name: /^2026 .* MB .* bytes/ })).toBeVisible();
  await page.getByRole('button', { name: 'Delete readings of some days' }).click();
  const deleting = page.getByRole('dialog', { name: 'Delete readings' });
  await deleting.getByText('all channels', { exact: true }).click();
  await deleting.getByLabel('Delete to the day, included').fill('');
  await expect(deleting.getByText('One of the two is no day.')).toBeVisible();
  await deleting.getByLabel('Delete to the day, included').fill('2026-05-04');
  await deleting.getByLabel('Delete from the day').fill('2026-05-04');
  await expectAccessible(page);
  await deleting.getByRole('button', { name: 'Delete 4 readings' }).click();
  const gone = message(page, /4 readings of all channels, 4 May 2026 were deleted/);
  await expect(gone).toBeVisible();
  await gone.getByRole('button', { name: 'Undo' }).click();
  await give('again.senml', pack);
  await page
    .getByRole('dialog', { name: 'How to read again.senml' })
    .getByRole('button', { name: 'Take in 4 readings' })
    .click();
  await expect(message(page, /again\.senml: 0 new readings/)).toBeVisible();
});

test('old days are thinned out for good: what goes is said before, a box must be ticked, and the log tells it', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Log').click();
  // Ten hours of a reading a minute, up and down within each hour.
  const minutes = Array.from({ length: 600 }, (_, at) => ({
    n: 'channel-c2',
    u: 'count',
    t: 1746349200 + at * 60,
    v: 1500 + ((at * 37) % 60),
  }));
  await giving(page)('may.senml', JSON.stringify(minutes));
  await page.getByRole('button', { name: 'Take in 600 readings' }).click();
  await expect(message(page, /600 new readings were taken in/)).toBeVisible();
  await page.getByText('What the readings take, and having fewer').click();
  await page.getByRole('button', { name: 'Thin out old days' }).click();
  const dialog = page.getByRole('dialog', { name: 'Thin out old days' });
  await dialog.getByLabel('Up to the day, included').fill('2025-05-03');
  await expect(dialog.getByText('Nothing would go: up to then there are no readings.')).toBeVisible();
  await dialog.getByLabel('Up to the day, included').fill('2025-05-05');
  // Of each of the ten hours first, lowest, highest and last: 37 and 60 have no common divisor, so every value comes once in each.
  await expect(
    dialog.getByText(/^Of 600 readings 5[67]\d would go and [34]\d stay: 0\.00 MB become 0\.00 MB\.$/),
  ).toBeVisible();
  await expectAccessible(page);
  const run = dialog.getByRole('button', { name: /^Delete 5\d\d readings for good$/ });
  await expect(run).toBeDisabled();
  await dialog.getByText('I have a backup of these days').click();
  await run.click();
  await expect(message(page, /^5\d\d readings are gone; of each hour/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Events' })).toContainText(
    /5\d\d readings of all channels up to 4 May 2025, thinned out to what tells of each hour/,
  );
});

test('what happened is written down with a press, changed, taken out, and put back; a wrong one is refused in a sentence', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Log').click();
  const bar = page.getByRole('region', { name: 'Write down what happened' });
  const events = page.getByRole('region', { name: 'Events' });
  await bar.getByRole('button', { name: 'Watered' }).click();
  const form = bar.getByRole('form', { name: 'Watered' });
  await form.getByRole('button', { name: 'Write watered' }).click();
  await expect(form.getByRole('alert')).toHaveText('How much was it, in ml?');
  await form.getByRole('textbox', { name: 'Watered' }).fill('1 litre');
  await form.getByRole('textbox', { name: 'Watered' }).press('Enter');
  await expect(form.getByRole('alert')).toHaveText('Type a number.');
  await form.getByRole('textbox', { name: 'Watered' }).fill('250');
  await form.getByLabel('When').fill('2100-01-01T00:00');
  await form.getByRole('button', { name: 'Write watered' }).click();
  await expect(form.getByRole('alert')).toContainText('no time between 2000 and 2100');
  await form.getByLabel('When').fill('2098-01-01T00:00');
  await form.getByRole('button', { name: 'Write watered' }).click();
  await expect(form.getByRole('alert')).toHaveText('That time has not come yet.');
  await form.getByRole('button', { name: 'Cancel' }).click();
  await bar.getByRole('button', { name: 'Watered' }).click();
  await form.getByRole('textbox', { name: 'Watered' }).fill('250');
  await expectAccessible(page);
  await form.getByRole('textbox', { name: 'Watered' }).press('Enter');
  const row = events.getByRole('row', { name: /Watered 250 ml by hand a person/ });
  await expect(row).toBeVisible();
  // The second of a day is two presses: what was given last time stands there.
  await bar.getByRole('button', { name: 'Watered' }).click();
  await expect(form.getByRole('textbox', { name: 'Watered' })).toHaveValue('250');
  await form.getByRole('button', { name: 'Cancel' }).click();
  await row.getByRole('button', { name: /Change\s*: Watered/ }).click();
  const changing = events.getByRole('form', { name: 'Change Watered' });
  await changing.getByRole('textbox', { name: 'Watered' }).fill('300');
  await changing.getByRole('textbox', { name: 'In words' }).fill('by the shed');
  await changing.getByRole('button', { name: 'Keep the change' }).click();
  await expect(events.getByRole('cell', { name: '300 ml by hand: by the shed' })).toBeVisible();
  await expect(row).toHaveCount(0);
  await message(page, /Watered changed/)
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(row).toBeVisible();
  await row.getByRole('button', { name: /Change\s*: Watered/ }).click();
  await changing.getByRole('button', { name: 'Take it out' }).click();
  await expect(row).toHaveCount(0);
  await message(page, /taken out of the log/)
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(row).toBeVisible();
  // What the board told is not a person's to change.
  await expect(
    events
      .getByRole('row', { name: /Pump off/ })
      .first()
      .getByRole('button'),
  ).toHaveCount(0);
});

test('a photo is made small, kept with its words, shown whole, and part of the backup; what is no picture is told', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Log').click();
  const bar = page.getByRole('region', { name: 'Write down what happened' });
  const events = page.getByRole('region', { name: 'Events' });
  const photo = page.getByLabel('Photo file');
  await photo.setInputFiles({ name: 'leaf.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') });
  await expect(message(page, /leaf\.jpg is no picture that this browser can read/)).toBeVisible();
  // A picture as a phone takes it, only of one colour.
  const png = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(3000, 2000);
    const pen = canvas.getContext('2d');
    if (pen) pen.fillStyle = '#6a8f3c';
    pen?.fillRect(0, 0, 3000, 2000);
    const bytes = await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer();
    return Array.from(new Uint8Array(bytes));
  });
  await photo.setInputFiles({ name: 'leaf.png', mimeType: 'image/png', buffer: Buffer.from(png) });
  const form = bar.getByRole('form', { name: 'Photo' });
  await form.getByRole('textbox', { name: 'In words' }).fill('first yellow leaf');
  await form.getByRole('button', { name: 'Write photo' }).click();
  const row = events.getByRole('row', { name: /Photo: first yellow leaf/ });
  await row.getByRole('button', { name: 'Photo: first yellow leaf' }).click();
  const shown = page.getByRole('dialog', { name: 'Photo' });
  const size = await shown
    .getByRole('img')
    .evaluate((one: HTMLImageElement) => [one.naturalWidth, one.naturalHeight]);
  expect(size).toEqual([1600, 1067]);
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  const backup = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a backup' }).click();
  await backup;
  await expect(message(page, /and 1 photo\./)).toBeVisible();
  // One that nothing was written about is not kept, nor is it in a backup.
  await photo.setInputFiles({ name: 'other.png', mimeType: 'image/png', buffer: Buffer.from(png) });
  await form.getByRole('button', { name: 'Cancel' }).click();
  await expect
    .poll(() =>
      page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            const open = indexedDB.open('plain-trowel');
            open.onsuccess = () => {
              const all = open.result.transaction('photos').objectStore('photos').count();
              all.onsuccess = () => resolve(all.result);
            };
          }),
      ),
    )
    .toBe(1);
  // It outlives the page.
  await page.reload();
  await expect(row.getByRole('img')).toBeVisible();
});

test('backups go into a folder that was chosen, each under a name of its own; where that fails it is told', async ({
  page,
}) => {
  // The page's own folder stands in for one of the computer: the same handles, and nobody to ask.
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('backups', { create: true }),
    });
  });
  await openSample(page);
  await sheet(page, 'Log').click();
  await page.getByRole('button', { name: 'Choose a folder for backups' }).click();
  const into = page.getByRole('button', { name: 'Back up into “backups”' });
  await into.click();
  await expect(
    message(page, /\d{4}-\d\d-\d\d\.zip was written into “backups”\. It holds the garden/),
  ).toBeVisible();
  await into.click();
  await expect(message(page, /-2\.zip was written into “backups”/)).toBeVisible();
  const files = () =>
    page.evaluate(async () => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('backups');
      const found: [string, string][] = [];
      for await (const [name, handle] of folder as unknown as AsyncIterable<[string, FileSystemFileHandle]>) {
        const bytes = new Uint8Array(await (await handle.getFile()).slice(0, 2).arrayBuffer());
        found.push([name, String.fromCharCode(...bytes)]);
      }
      return found.toSorted();
    });
  expect((await files()).map(([, start]) => start)).toEqual(['PK', 'PK']);
  // The folder is known after a reload; when it is gone, that is told and nothing is lost.
  await page.reload();
  await expect(into).toBeVisible();
  await page.evaluate(async () =>
    (await navigator.storage.getDirectory()).removeEntry('backups', { recursive: true }),
  );
  await into.click();
  await expect(message(page, /could not be written into “backups”: it may be gone, or full/)).toBeVisible();
});

test('what was read before a calibration can be seen as it was told then, and as it is now', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await sheet(page, 'Log').click();
  await expect(page.getByRole('img', { name: /Chilli crate, span percent over time/ })).toBeVisible();
  // One version says the same then and now.
  await expect(page.getByText('% span then', { exact: true })).toHaveCount(0);
  // Another was made six hours ago, and the one of three weeks ago is still in use.
  await page.goto('about:blank');
  await page.goto('/');
  await page.evaluate(async () => {
    const open = indexedDB.open('plain-trowel');
    await new Promise((done) => (open.onsuccess = done));
    const store = open.result.transaction('gardens', 'readwrite').objectStore('gardens');
    const get = store.get('marigold-hare');
    await new Promise((done) => (get.onsuccess = done));
    const record = get.result as { doc: { calibrations: { id: string; madeAt: string }[] } };
    const first = record.doc.calibrations.find(({ id }) => id === 'cal-c2');
    if (!first) throw new Error('no calibration');
    record.doc.calibrations.push({
      ...first,
      id: 'cal-c2-later',
      madeAt: new Date(Date.now() - 6 * 3_600_000).toISOString(),
    });
    const put = store.put(record);
    await new Promise((done) => (put.onsuccess = done));
    open.result.close();
  });
  await page.goto('/g/marigold-hare/season/log');
  await plot(page, /Chilli crate/).click();
  await page.getByText('% span then', { exact: true }).click();
  await expect(page.getByRole('img', { name: /span percent as it was then/ })).toBeVisible();
  await expect(page.getByText(/by the newest calibration that had been made by then/)).toBeVisible();
  await expectAccessible(page);
  await page.getByText('% span now', { exact: true }).click();
  await expect(page.getByText(/that had been made by then/)).toHaveCount(0);
});
