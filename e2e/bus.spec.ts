/** The bus desk over a serial port that the person chooses: the link's own code, with everything a cable can do to it. */
import type { Page } from '@playwright/test';
import { plugInAdapter } from './busPort.ts';
import { expect, message, openSample, test, view } from './careful.ts';

async function openDesk(page: Page): Promise<void> {
  await openSample(page);
  await view(page, 'Bus desk').click();
}

const connect = (page: Page) => page.getByRole('button', { name: 'Choose the adapter’s port' }).click();

test('a bus behind an adapter is opened at its speed, read, searched and polled, while the boards go on', async ({
  page,
}) => {
  const adapter = await plugInAdapter(page, [1, 7]);
  await openDesk(page);
  await page.getByLabel('Speed').selectOption('4800');
  await connect(page);
  await expect(page.getByText('Adapter at 4800 baud')).toBeVisible();
  expect(await adapter.openedAt()).toBe(4800);
  await page.getByRole('button', { name: 'Read once' }).click();
  await expect(page.getByRole('row', { name: /^moisture 3\d\.\d % factory measured/ })).toBeVisible();
  await page.getByRole('button', { name: 'Look for probes, 1 to 247' }).click();
  await expect(page.getByText(/answered up to address ([89]|[1-9]\d)/)).toBeVisible({ timeout: 180_000 });
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: '7', exact: true }).click();
  await expect(page.getByLabel('Address', { exact: true })).toHaveValue('7');
  await page.getByRole('button', { name: /^Poll B1/ }).click();
  await view(page, /All channels/).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'B1 factory moisture' })).toContainText(
    /3\d\.\d/,
  );
});

test('garbage on the pair, a wrong check value and a probe that keeps quiet are each told, and the next read is good again', async ({
  page,
}) => {
  const adapter = await plugInAdapter(page, [1]);
  await openDesk(page);
  await connect(page);
  const read = page.getByRole('button', { name: 'Read once' });
  await adapter.babble([0, 255, 17, 3, 3, 3, 200, 1, 9]);
  await read.click();
  await expect(page.getByRole('row', { name: /^moisture 3\d\.\d/ })).toBeVisible();
  adapter.setFault('wrong CRC');
  await read.click();
  await expect(page.getByRole('alert').getByText(/The check value does not hold/)).toBeVisible();
  adapter.setFault('no answer');
  await read.click();
  await expect(
    page.getByRole('alert').getByText(/No answer\. In this order: the probe’s supply/),
  ).toBeVisible();
  adapter.setFault('exception');
  await read.click();
  await expect(page.getByRole('alert').getByText(/The probe refuses/)).toBeVisible();
  adapter.setFault('none');
  await read.click();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('pulled out while it polls, the adapter is missed in a sentence, the values stay and the boards’ recording goes on', async ({
  page,
}) => {
  const adapter = await plugInAdapter(page, [1]);
  await openDesk(page);
  await connect(page);
  await page.getByRole('button', { name: /^Poll B1/ }).click();
  await expect(page.getByRole('row', { name: /^moisture 3\d\.\d/ })).toBeVisible();
  await adapter.pull();
  await expect(
    page.getByRole('alert').getByText(/The adapter was unplugged\. Nothing read so far is lost/),
  ).toBeVisible();
  await expect(page.getByRole('row', { name: /^moisture 3\d\.\d/ })).toBeVisible();
  await page.getByRole('button', { name: 'Disconnect' }).click();
  await connect(page);
  await page.getByRole('button', { name: 'Read once' }).click();
  await expect(page.getByRole('row', { name: /^moisture 3\d\.\d/ })).toBeVisible();
  await view(page, 'This probe').click();
  await expect(page.getByRole('button', { name: /^Reading now/ })).toBeVisible();
});

test('a port that nobody chose, one refused, one already open and one held by another program are told in a sentence each', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const answers = [
      () => Promise.reject(new DOMException('none chosen', 'NotFoundError')),
      () => Promise.reject(new DOMException('refused', 'SecurityError')),
      () =>
        Promise.resolve({
          readable: null,
          writable: null,
          open: () => Promise.reject(new DOMException('already open', 'InvalidStateError')),
          close: () => Promise.resolve(),
        }),
      () =>
        Promise.resolve({
          readable: null,
          writable: null,
          open: () => Promise.reject(new DOMException('busy', 'NetworkError')),
          close: () => Promise.resolve(),
        }),
    ];
    Object.defineProperty(Navigator.prototype, 'serial', {
      configurable: true,
      get: () => ({ requestPort: () => answers.shift()?.() }),
    });
  });
  await openDesk(page);
  const told = page.getByRole('alert');
  await connect(page);
  await expect(told.getByText(/No port was chosen/)).toBeVisible();
  await connect(page);
  await expect(told.getByText(/The browser refused the port/)).toBeVisible();
  await connect(page);
  await expect(told.getByText(/another program or tab holds it/)).toBeVisible();
  await connect(page);
  await expect(told.getByText(/another program or tab holds it/)).toBeVisible();
});

test('a stand-in that switches its probes prints so; named as the probe supply, the warm-up is measured and kept', async ({
  page,
}) => {
  await openSample(page);
  await page.getByText('Try a fault on the stand-in').click();
  await page.getByLabel('Switch the probes on for 8 s, off for 4 s').check();
  await view(page, /All channels/).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: /^on = / })
    .first()
    .getByRole('button', { name: 'Say what it is' })
    .click();
  await page.getByText('the board itself').click();
  await page.getByLabel('Label', { exact: true }).fill('Probe switch');
  await page.getByLabel('It measures').selectOption('probe supply');
  await page.getByRole('button', { name: 'That is what it is' }).click();
  await view(page, 'First test').click();
  await expect(page.getByText(/[1-9]\d* switchings? on measured/)).toBeVisible({ timeout: 180_000 });
  await page.getByRole('button', { name: /^Keep it with/ }).click();
  await expect(message(page, /waits \d/)).toBeVisible();
});
