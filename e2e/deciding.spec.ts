/** Any probe can decide a plot, alone or with others; a board's odd line is read where a person points; units are a choice. */
import {
  expect,
  expectAccessible,
  message,
  openSample,
  plot,
  startFromParts,
  test,
  view,
} from './careful.ts';
import { stubSerial } from './serialStub.ts';

test('a tensiometer decides in kPa: its limits stand the other way round, and nothing asks for a calibration', async ({
  page,
}) => {
  await stubSerial(page, { names: ['t1='], tauS: 1 });
  await startFromParts(page, {
    plot: 'Tomato bed',
    probe: 'T1',
    stream: 't1',
    kind: 'tensiometer',
    pump: true,
  });
  await page.getByRole('link', { name: 'Limits', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Tomato bed: water above 30.0 kPa, stop at 10.0 kPa',
  );
  const start = page.getByRole('textbox', { name: 'Start limit' });
  await start.fill('40');
  await start.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('water above 40.0 kPa');
  await expectAccessible(page);
});

test('a tensiometer on an analog pin gives counts: two points make them kPa, and Limits goes by them', async ({
  page,
}) => {
  await stubSerial(page, { names: ['t1='], tauS: 1 });
  await startFromParts(page, {
    plot: 'Tomato bed',
    probe: 'T1',
    stream: 't1',
    kind: 'tensiometer',
    pump: true,
  });
  await view(page, 'Temperature').click();
  await page.getByRole('button', { name: 'Correct it' }).click();
  const form = page.getByRole('region', { name: 'Correct T1' });
  const reading = form.getByRole('textbox', { name: 'In water: reading' });
  await expect(form.getByRole('status')).toContainText('Take or type the reading');
  await reading.fill('3900');
  await reading.press('Enter');
  await expect(form.getByRole('status')).toContainText('Take or type the reading');
  const pulled = form.getByRole('textbox', { name: 'At a suction: reading' });
  await pulled.fill('4095');
  await pulled.press('Enter');
  await expect(form.getByRole('status')).toContainText('was misread');
  await expect(form.getByRole('button', { name: 'Read it in kPa' })).toBeDisabled();
  await reading.fill('165');
  await reading.press('Enter');
  await pulled.fill('2399');
  await pulled.press('Enter');
  // 60 kPa over 2234 counts.
  await expect(form.getByRole('status')).toContainText(
    'A count is 0.027 kPa; the board can tell −4 to 106 kPa.',
  );
  await expectAccessible(page);
  await form.getByRole('button', { name: 'Read it in kPa' }).click();
  await expect(message(page, /T1 soil tension is read in kPa/)).toBeVisible();
  await expect(
    page.getByRole('cell', { name: /0\.0 and 60\.0 kPa at 165 and 2\s?399 counts/ }),
  ).toBeVisible();
});

test('two probes decide together where they speak alike, and one that does not is left out and told', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Lemon barrel/).click();
  await page.getByRole('link', { name: 'Limits', exact: true }).click();
  const decides = page.getByRole('region', { name: 'What decides' });
  await decides.getByText('the mean', { exact: true }).click();
  const says = decides.getByRole('list', { name: 'What each probe says' });
  await expect(says).toContainText(/L1\s*\d+\.\d % span/);
  await expect(says).toContainText(
    /B1 factory moisture\s*(no reading yet|speaks of another kind of percent)/,
  );
  await decides.getByText('L1', { exact: true }).click();
  await expect(says).toHaveCount(0);
  // The sheets of the bench can be about either.
  await page.getByRole('link', { name: 'Readout', exact: true }).click();
  await page.getByText('B1 factory moisture', { exact: true }).click();
  await expect(page).toHaveURL(/probe=/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('probe B1');
});

test('every plot stands in one table, and the rules of one go to others that speak alike', async ({
  page,
}) => {
  await openSample(page);
  await plot(page, /Chilli crate/).click();
  await page.getByRole('link', { name: 'Limits', exact: true }).click();
  await view(page, /^All plots/).click();
  await page.getByRole('button', { name: 'Copy to 3 plots' }).click();
  await expect(message(page, /copied to 2 plots/)).toBeVisible();
  await expect(page.getByText('Strawberry gutter: its probe is not calibrated yet.')).toBeVisible();
  await expect(page.getByLabel('Start limit of Lemon barrel')).toHaveValue('45.0');
  await expectAccessible(page);
});

test('a number of a line that nothing reads is pressed, and read from then on', async ({ page }) => {
  await stubSerial(page, { names: ['wifi retry 3 raw '], tauS: 1 });
  await startFromParts(page, { probe: 'B1' });
  await page.getByText('A board on a serial port').click();
  await page.getByRole('button', { name: 'Choose the port' }).click();
  await page
    .getByRole('button', { name: /^3\d\d\d is the reading|^29\d\d is the reading/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'That is what it is' }).click();
  await expect(page.getByRole('button', { name: /^Reading now: (3 0|2 9)\d\d counts/ })).toBeVisible();
});

test('in American units temperatures, tanks and depths are read and typed, and stored as before', async ({
  page,
}) => {
  await openSample(page);
  await page.getByRole('button', { name: /The Marigold Hare/ }).click();
  await page.getByRole('menuitem', { name: /^Units/ }).click();
  for (const unit of ['°F', 'US gallons', 'inches']) await page.getByText(unit, { exact: true }).click();
  await page.keyboard.press('Escape');
  await plot(page, /Chilli crate/).click();
  await expect(page.getByText(/2\.8 in deep/)).toBeVisible();
  await page.getByRole('link', { name: 'Limits', exact: true }).click();
  const cold = page.getByLabel('Air is too cold below, °F');
  await cold.fill('41');
  await cold.press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /The Marigold Hare/ }).click();
  await page.getByRole('menuitem', { name: /^Units/ }).click();
  await page.getByText('°C', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Air is too cold below, °C')).toHaveValue('5');
});
