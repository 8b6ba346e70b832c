/** The whole slice, as a new user would walk it: parts, raw numbers, two references, limits, the pump's answer, the log, the files. */
import { readFile } from 'node:fs/promises';
import {
  clock,
  expect,
  expectAccessible,
  message,
  sheet,
  startFromParts,
  test,
  view,
  reload,
} from './careful.ts';

test('from nothing to a pot that waters itself, and away with the data', async ({ page }) => {
  // Three choices and nothing else.
  await page.goto('/');
  await expect(
    page
      .getByRole('region', { name: 'Begin' })
      .getByText(/Open the sample garden|Start my own garden|Open a file/),
  ).toHaveCount(3);
  await expect(page.getByRole('region', { name: 'Your gardens' })).toHaveCount(0);
  await startFromParts(page, { pump: true });

  // Raw numbers.
  await page.getByRole('button', { name: 'Start the stand-in boards' }).click();
  const now = page.getByRole('button', { name: /^Reading now/ });
  await expect(now).toContainText(/\d/);
  await expect(page.getByText(/lines read/)).toBeVisible();
  await clock(page, '×60').click();

  // A dry and a wet reference.
  await sheet(page, 'Calibrate').click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Air', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Pull the probe out' }).click();
  // Taken once it rests in air: before that the button offers less, or nothing.
  await page.getByRole('button', { name: 'Capture', exact: true }).waitFor({ timeout: 180_000 });
  await expect(async () => {
    await page.keyboard.press('c');
    await expect(page.getByRole('button', { name: 'Capture again' })).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 180_000 });
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'Water to the line' })).toBeVisible();
  await page.keyboard.press('j');
  await page.waitForTimeout(4000);
  await expect(page.getByText(/^Stopped moving/)).toBeVisible({ timeout: 180_000 });
  await page.keyboard.press('c');
  await page.getByRole('button', { name: /^Use this calibration/ }).click();
  await expect(page.getByRole('region', { name: 'Calibration in use' })).toBeVisible();
  await expect(page.getByText('Numbers fall as it gets wetter')).toBeVisible();
  await page.keyboard.press('u');

  // Limits: by typing, and by keys. The pot is made to want water.
  await page.getByRole('link', { name: 'set the limits' }).click();
  await expect(page.getByRole('slider', { name: 'Start limit' })).toBeVisible();
  const stop = page.getByRole('group', { name: 'stop limit' }).getByRole('textbox').first();
  await stop.fill('96');
  await stop.press('Enter');
  const start = page.getByRole('group', { name: 'start limit' }).getByRole('textbox').first();
  await start.fill('90');
  await start.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Basil pot: water below 90.0 % span, stop at 96.0 % span',
  );
  await expect(page.getByText(/^red: (low|dry)$/)).toBeVisible();

  // The pump answers, after the hold that begins with switching on.
  await view(page, 'Program').click();
  // A run long enough to be watched on a clock that goes sixty times as fast.
  const set = async (label: string, value: string) => {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  await set('Daily maximum', '20000');
  await expect(page.getByText(/never more than 20\.0 l a day/)).toBeVisible();
  await set('Maximum run', '240');
  await expect(page.getByRole('button', { name: /^One run at most: 2 \d{3} ml/ })).toBeVisible();
  await set('Dose', '2000');
  await expect(page.getByText(/give 2.000 ml, wait 15 min/)).toBeVisible();
  await page.getByRole('button', { name: 'Let it water by itself' }).click();
  // It asks once, with what may land and what was seen of the pump; who goes on without says why.
  const asked = page.getByRole('dialog', { name: /water by itself/ });
  await expect(asked).toContainText(/Up to 20.000 ml a day may land/);
  await expectAccessible(page);
  await expect(asked.getByRole('button', { name: 'Let it water by itself' })).toBeDisabled();
  await asked.getByLabel(/Why may it water all the same/).fill('a stand-in, no water');
  await asked.getByRole('button', { name: 'Let it water by itself' }).click();
  await expect(page.getByText(/may start in/)).toBeVisible();
  await expect(page.getByRole('status').getByText('pump running')).toBeVisible({ timeout: 180_000 });

  // All of it is in the log after a reload.
  await expect(page.getByText('pump running')).toHaveCount(0, { timeout: 180_000 });
  await page.waitForTimeout(2500);
  await sheet(page, 'Log').click();
  await reload(page);
  const events = page.getByRole('region', { name: 'Events' });
  await expect(events.getByRole('cell', { name: 'Pump off' }).first()).toBeVisible();
  await expect(events.getByRole('cell', { name: 'Calibrated' })).toBeVisible();
  await expect(events.getByText(/the dose was given/).first()).toBeVisible();

  // Away with the data, and in again.
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export readings as CSV' }).click();
  const csv = await readFile(await (await download).path(), 'utf8');
  const [header, first = ''] = csv.split('\r\n');
  expect(header).toBe('time,plot,probe,channel,raw,percent,percent_kind,flags');
  expect(first).toMatch(/^\d{4}-\d\d-\d\dT[\d:.]+Z,Basil pot,B1,channel-\w{4},\d+,\d+\.\d,span,simulated$/);
  await page
    .getByLabel('Readings CSV file')
    .setInputFiles({ name: 'again.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  const count = csv.trim().split('\r\n').length - 1;
  await expect(message(page, /^again.csv: 0 new readings/)).toContainText(
    `All ${count} are in the log already`,
  );
});
