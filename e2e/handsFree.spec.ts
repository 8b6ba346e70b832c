import { expect, message, startFromParts, test, view } from './careful.ts';
import { putInto, stubSerial } from './serialStub.ts';

test('a real board to a trusted percent in six presses, hands-free', async ({ page }) => {
  await stubSerial(page, { names: ['Sensor reading '], tauS: 1 });
  await startFromParts(page, { plot: 'Tomato pot', probe: 'T1' });
  let presses = 0;
  const press = async (name: string | RegExp, role: 'button' | 'link' = 'button') => {
    presses += 1;
    await page.getByRole(role, { name }).first().click();
  };
  presses += 1;
  await page.getByText('A board on a serial port').click();
  await press('Choose the port');
  await press('That is what it is');
  await press('Calibrate T1 in air and water', 'link');
  await expect(page.getByRole('heading', { name: 'Now T1 into water, up to the line' })).toBeVisible({
    timeout: 180_000,
  });
  await putInto(page, 'water');
  await press(/wiped, and up to the line/);
  await expect(page.getByRole('heading', { name: 'It has air and water' })).toBeVisible({ timeout: 180_000 });
  const row = page.getByRole('row').filter({ hasText: 'T1' });
  await expect(row).toContainText('in order');
  await press(/^Use it/);
  await expect(message(page, /1 probe is calibrated and tested/)).toBeVisible();
  expect(presses).toBeLessThanOrEqual(6);
  // The same pass was its first test.
  await page.getByRole('link', { name: 'Readout' }).click();
  await view(page, 'First test').click();
  await expect(page.getByRole('heading', { name: 'T1: 2 of 3 seen, next touch' })).toBeVisible();
});

test('water that never comes is not believed, and a probe that does not answer can be left out', async ({
  page,
}) => {
  await stubSerial(page, { names: ['s1=', 's2='], tauS: 0.5 });
  await startFromParts(page, { plot: 'Pot', probe: 'S1', alike: 3, stream: 's1' });
  await page.getByText('A board on a serial port').click();
  await page.getByRole('button', { name: 'Choose the port' }).click();
  await page.getByRole('link', { name: 'all 2 that are heard together' }).click();
  await expect(
    page.getByRole('heading', { name: 'Now all 2 probes into water, up to the line' }),
  ).toBeVisible({ timeout: 180_000 });
  // Said, and not done.
  await page.getByRole('button', { name: /wiped, and up to the line/ }).click();
  const rows = page.getByRole('list', { name: 'How each probe stands' });
  await expect(rows.getByText(/waiting for water, moved by 0 %/)).toHaveCount(2);
  await rows.getByRole('button', { name: 'Leave it out' }).last().click();
  await expect(page.getByRole('heading', { name: 'Now S1 into water, up to the line' })).toBeVisible();
  await putInto(page, 'water');
  await expect(page.getByRole('heading', { name: 'It has air and water' })).toBeVisible({ timeout: 180_000 });
});
