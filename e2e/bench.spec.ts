/** The bench: whether a number can be trusted, first tests, probes side by side, the bus, temperature, and a session written down. */
import { readFile } from 'node:fs/promises';
import {
  clock,
  expect,
  expectAccessible,
  message,
  openSample,
  plot,
  startFromParts,
  test,
  view,
  reload,
} from './careful.ts';

test('a probe that was pulled out settles, has stopped moving at its end value, and the reference keeps that word', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  const settling = page.getByRole('region', { name: 'Settling' });
  const verdict = page.getByRole('region', { name: 'Verdict' });
  await page.getByRole('button', { name: 'Pull the probe out' }).click();
  await expect(verdict).toContainText(/Not steady yet|Watching|Just disturbed/);
  await clock(page, '×10').click();
  await expect(verdict).toContainText(/Stopped moving: good for air and water\./, { timeout: 180_000 });
  await expect(settling.getByRole('button', { name: /^End value: .* counts/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Calibrate', exact: true }).click();
  await page.getByRole('button', { name: 'Calibrate again' }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('button', { name: 'Capture', exact: true }).click();
  await expect(message(page, /Captured, air/)).toBeVisible();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('button', { name: 'Into the water jar' }).click();
  await page.getByRole('button', { name: /^In place: take it at rest/ }).click();
  await expect(page.getByText('Waiting: it is taken by itself once it rests.')).toBeVisible();
  // Pressed again it takes what there is.
  await page.getByRole('button', { name: /^Capture early/ }).click();
  await expect(page.getByText(/taken while (settling|disturbed|watching)/)).toBeVisible();
});

test('every fault tried on the stand-in is told with its next step', async ({ page }) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await page.getByText('Try a fault on the stand-in').click();
  const faults = page.getByRole('list', { name: 'Faults' });
  const probe = page.getByLabel('The probe is');
  await probe.selectOption('short');
  await expect(faults).toContainText('Measure the supply at the probe');
  await probe.selectOption('open');
  await expect(faults).toContainText(/Unplugged at \d\d:\d\d:\d\d/);
  await probe.selectOption('none');
  const lines = page.getByLabel('The board’s lines are');
  await lines.selectOption('garbage');
  await expect(faults).toContainText('57 600 baud', { timeout: 180_000 });
  await lines.selectOption('silent');
  await expect(page.getByText(/Lines come at/)).toBeVisible();
  await lines.selectOption('none');
});

test('a new probe is touched, hung in air, put in water; each step ticks itself and stays after a reload', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await clock(page, '×10').click();
  await view(page, 'First test').click();
  const steps = ['Touch the stand-in’s probe', 'Hang it in air', 'Into the jar'];
  for (const [at, step] of steps.entries()) {
    await page.getByRole('button', { name: 'Watch for it' }).click();
    await page.getByRole('button', { name: step }).click();
    const title = at === 2 ? 'C2 passed its first test' : `C2: ${at + 1} of 3 seen`;
    await expect(page.getByRole('heading', { name: title })).toBeVisible({ timeout: 180_000 });
  }
  await expectAccessible(page);
  await reload(page);
  await expect(page.getByRole('heading', { name: 'C2 passed its first test' })).toBeVisible();
});

test('probes side by side are compared, and a swapped label is caught before anything is buried', async ({
  page,
}) => {
  await openSample(page);
  await clock(page, '×10').click();
  await view(page, 'Side by side').click();
  for (const [move, take] of [
    ['Stand-ins into air', 'Take all in air'],
    ['Stand-ins into one jar', 'Take all in the jar'],
  ] as const) {
    await page.getByRole('button', { name: move }).click();
    await page.waitForTimeout(5000);
    await page.getByRole('button', { name: take }).click();
    await expect(message(page, /3 probes taken/).last()).toBeVisible();
  }
  await expect(page.getByRole('heading', { name: /Alike within ±|unlike the others/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Stand-ins into air' }).click();
  await page.waitForTimeout(5000);
  await page.getByRole('button', { name: 'Ask for C2' }).click();
  await page.getByRole('button', { name: 'Dip L1' }).click();
  await expect(page.getByText('L1 moved, not C2.')).toBeVisible();
  await page.getByRole('button', { name: 'Stop asking' }).click();
  await page.getByRole('button', { name: 'Ask for S1' }).click();
  await page.getByRole('button', { name: 'Dip S1' }).click();
  await expect(message(page, /S1 is S1/)).toBeVisible();
});

test('the bus desk reads, explains its bytes, counts errors, changes an address, and its polls reach the channels', async ({
  page,
}) => {
  // A hundred reads that fail take half a minute of waiting by themselves.
  await openSample(page);
  await view(page, 'Bus desk').click();
  await page.getByRole('button', { name: 'Open the stand-in bus' }).click();
  await page.getByRole('button', { name: 'Read once' }).click();
  await expect(page.getByRole('row', { name: /^moisture 3\d\.\d % factory measured/ })).toBeVisible();
  await page.getByText(/Bytes of the last question/).click();
  await expect(page.getByText('function 3: read holding registers').first()).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Test with 100 reads' }).click();
  await expect(page.getByText('0 of 100 reads failed')).toBeVisible({ timeout: 180_000 });
  await page.getByText('Change the address').click();
  await page.getByLabel(/^New address/).fill('7');
  await page.getByLabel(/^New address/).press('Enter');
  await page.getByLabel('It is the only one on the bus').check();
  await page.getByRole('button', { name: 'Write the address' }).click();
  await expect(message(page, /B1 has address 7 now/)).toBeVisible();
  await page.getByRole('button', { name: /^Poll B1/ }).click();
  await view(page, /All channels/).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'B1 factory moisture' })).toContainText(
    /3\d\.\d/,
  );
  await expectAccessible(page);
  await view(page, 'Bus desk').click();
  await page.getByRole('button', { name: 'Disconnect' }).click();
  await page.getByLabel(/^The stand-in’s fault/).selectOption('wrong CRC');
  await page.getByRole('button', { name: 'Open the stand-in bus' }).click();
  await page.getByRole('button', { name: 'Test with 100 reads' }).click();
  await expect(page.getByText(/[1-9]\d* of 100 reads failed/)).toBeVisible({ timeout: 180_000 });
  await expect(page.getByText(/× wrong crc/)).toBeVisible();
});

test('a register map of one’s own is written by form, refused while it is wrong, and read with', async ({
  page,
}) => {
  await openSample(page);
  await view(page, 'Bus desk').click();
  await page.getByRole('button', { name: 'Open the stand-in bus' }).click();
  await page.getByRole('button', { name: 'Own map' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Rod from the shed');
  await page.getByRole('button', { name: 'Remove field 3' }).click();
  await page.getByLabel('Scale of field 2').fill('x');
  await expect(page.getByRole('alert').filter({ hasText: 'fields[1].scale' })).toBeVisible();
  await page.getByLabel('Scale of field 2').fill('0.1');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep the map' }).click();
  await expect(page.getByLabel('Register map', { exact: true })).toContainText('Rod from the shed');
  await page.getByRole('button', { name: 'Read once' }).click();
  await expect(page.getByRole('row', { name: /^temperature 1\d\.\d °C/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /^ec/ })).toHaveCount(0);
});

test('a battery monitor is trimmed, a thermometer corrected, and the night needs its hours', async ({
  page,
}) => {
  await openSample(page);
  await view(page, 'Temperature').click();
  const battery = page.getByRole('row', { name: /^Battery/ });
  // In the sun it charges: from 12 V in the morning to 13 V at noon.
  await expect(battery).toContainText(/1[23]\.\d\d V/);
  await expectAccessible(page);
  await battery.getByRole('button', { name: 'Correct it' }).click();
  const panel = page.getByRole('region', { name: 'Correct Battery' });
  await panel.getByLabel('Multimeter').fill('12.60');
  await panel.getByLabel('Multimeter').press('Enter');
  await panel.getByRole('button', { name: 'Correct it' }).click();
  await expect(battery).toContainText('a multimeter at 12.60 V');
  await expect(battery).toContainText(/12\.[56]\d V/);
  const air = page.getByRole('region', { name: 'Air temperature' }).getByRole('row', { name: /^Air/ });
  await air.getByRole('button', { name: 'Correct it' }).click();
  await page.getByRole('textbox', { name: 'Trusted value' }).fill('12');
  await page.getByRole('textbox', { name: 'Trusted value' }).press('Enter');
  await page
    .getByRole('region', { name: /^Correct Air/ })
    .getByRole('button', { name: 'Correct it' })
    .click();
  await expect(air).toContainText('an offset');
  await air.getByRole('button', { name: 'Correct it' }).click();
  await page.getByText('ice slush and warm bath').click();
  await expect(page.getByRole('textbox', { name: 'Trusted value' })).toHaveValue('0.0');
  await page.getByRole('button', { name: 'Take this point' }).click();
  await expect(page.getByRole('textbox', { name: 'Trusted value' })).toHaveValue('40.0');
  await page
    .getByRole('region', { name: /^Correct Air/ })
    .getByRole('button', { name: 'Correct it' })
    .click();
  await expect(page.getByText(/The two points are 0\.\d °C apart/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Use these offsets' })).toBeVisible();
});

test('a session is written down, saved, and played back as a source', async ({ page }) => {
  await openSample(page);
  await page.getByRole('button', { name: 'Write it down' }).click();
  await page.waitForTimeout(2500);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Save \d+ lines/ }).click();
  const path = await (await saved).path();
  const rows = (await readFile(path, 'utf8')).trim().split('\n');
  expect(JSON.parse(rows[0] ?? '')).toMatchObject({
    format: 'plain-trowel-bench',
    version: 1,
    simulated: true,
  });
  expect(rows.length).toBeGreaterThan(4);
  await page.getByRole('button', { name: 'Change source' }).click();
  await page.getByText('A serial log', { exact: true }).click();
  await page.getByLabel('Serial log file').setInputFiles(path);
  await expect(page.getByText(`${rows.length - 1} lines read`)).toBeVisible();
});

test('a name that nobody knows is said once to be the battery', async ({ page }) => {
  await startFromParts(page);
  await page.getByText('A serial log').click();
  await page.getByLabel('Paste lines here').fill('volts=3.05\nvolts=3.06');
  await page.getByRole('button', { name: 'Play the pasted lines' }).click();
  await view(page, /All channels/).click();
  await page.getByRole('button', { name: 'Say what it is' }).click();
  await page.getByText('the board itself').click();
  await page.getByLabel('Label', { exact: true }).fill('Battery');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'That is what it is' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Battery' })).toContainText('3.06');
});
