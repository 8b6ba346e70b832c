/** A real board to a trusted percent, counted in the real interface: presses, fields and seconds of waiting, for sticks of several time constants. */
import { chromium, type Browser, type Page } from '@playwright/test';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { appServer } from './appServer.ts';
import { putInto, stubSerial } from '../e2e/serialStub.ts';

const DIST = join(import.meta.dirname, '../app/dist');
/** Time until a stick is within 1 % of its span of water, time constants: ln 100. */
const TRUE_TAUS = Math.log(100);

class Counting {
  presses = 0;
  fields = 0;
  waits = 0;
  waitedS = 0;
  constructor(private readonly page: Page) {}
  async press(name: string | RegExp, role: 'button' | 'link' | 'checkbox' = 'button', at = 0): Promise<void> {
    this.presses += 1;
    await this.page.getByRole(role, { name }).nth(at).click();
  }
  async pressText(text: string): Promise<void> {
    this.presses += 1;
    await this.page.getByText(text, { exact: true }).first().click();
  }
  async fill(label: string, text: string): Promise<void> {
    this.fields += 1;
    const field = this.page.getByRole('textbox', { name: label, exact: true }).first();
    await field.fill(text);
    // Leaving it keeps it.
    await field.blur();
  }
  async waitFor(heading: RegExp): Promise<void> {
    this.waits += 1;
    const began = performance.now();
    await this.page.getByRole('heading', { name: heading }).waitFor({ timeout: 900_000 });
    this.waitedS += (performance.now() - began) / 1000;
  }
}

async function newPage(browser: Browser): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // The runner names functions through a helper that the page does not have.
  await page.addInitScript('globalThis.__name = (named) => named');
  return page;
}

async function connect(count: Counting): Promise<void> {
  await count.pressText('A board on a serial port');
  await count.press('Choose the port');
}

async function waterAndUse(page: Page, count: Counting): Promise<void> {
  await count.waitFor(/^Now .* into water/);
  await putInto(page, 'water');
  await count.press(/wiped, and up to the line/);
  await count.waitFor(/(has|have) air and water$/);
  await count.press(/^Use /);
  await page
    .getByText(/calibrated and tested/)
    .first()
    .waitFor();
}

/** From a garden with one stick and a board that nobody knows to a percent. */
async function oneStick(browser: Browser, address: string, tauS: number): Promise<Counting> {
  const page = await newPage(browser);
  await stubSerial(page, { names: ['Sensor reading '], tauS });
  await page.goto(`${address}/new`);
  await page.getByLabel('Plot', { exact: true }).fill('Tomato pot');
  await page.getByLabel('I have them already').check();
  await page.getByLabel('Label on the probe').fill('T1');
  await page.getByRole('button', { name: 'Make the garden' }).click();
  const count = new Counting(page);
  await connect(count);
  await count.press('That is what it is');
  await count.press('Calibrate T1 in air and water', 'link');
  await waterAndUse(page, count);
  await page.close();
  return count;
}

/** From nothing to four pots, each with its pump switched on. */
async function fourPots(browser: Browser, address: string): Promise<Counting> {
  const page = await newPage(browser);
  await stubSerial(page, { names: ['s1=', 's2=', 's3=', 's4='], tauS: 2 });
  await page.goto(address);
  const count = new Counting(page);
  await count.press(/Start my own garden/, 'link');
  await count.fill('Plot', 'Pot 1');
  await count.fill('How many alike', '4');
  await count.press('I have them already', 'checkbox');
  await count.fill('Label on the probe', 'S1');
  await count.fill('Name that the board prints', 's1');
  await count.press('A pump waters this plot', 'checkbox');
  await count.fill('What the pump gives', '12');
  await count.press('Make the garden');
  await page.waitForURL(/readout/);
  await connect(count);
  await count.press(/that are heard together/, 'link');
  await waterAndUse(page, count);
  await count.press('Limits', 'link');
  await count.fill('Start limit', '40');
  await count.fill('Stop limit', '65');
  await count.press(/^All plots/, 'link');
  await count.press(/^Copy to 3 plots/);
  // Each pump is asked about once: what was seen of it, or why it may water all the same.
  for (let at = 0; at < 4; at += 1) {
    await count.press(/pump/, 'checkbox', at);
    await count.fill('Not everything was seen. Why may it water all the same?', 'tried by hand for a week');
    await count.press('Let it water by itself');
  }
  await page
    .getByRole('checkbox', { name: /pump.*on$/ })
    .nth(3)
    .waitFor();
  await page.close();
  return count;
}

export async function benchHandsFree(): Promise<void> {
  const server = appServer(DIST);
  await new Promise((ready) => server.once('listening', ready));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    console.log('\nBench, counted in the real interface');
    for (const tauS of [2, 8, 30]) {
      const { presses, waitedS } = await oneStick(browser, address, tauS);
      console.log(
        `  one stick, time constant ${String(tauS).padStart(2)} s: ${presses} presses, ${waitedS.toFixed(0)} s of waiting, ${(waitedS / (TRUE_TAUS * tauS)).toFixed(1)} × the true time${tauS === 2 ? ' (wanted: 6, 45 s, 4.9 ×)' : ''}`,
      );
    }
    const { presses, fields, waits, waitedS } = await fourPots(browser, address);
    console.log(
      `  four pots with pumps: ${presses} presses, ${fields} fields, ${waits} waits of ${waitedS.toFixed(0)} s together (wanted: 25, 15, 2)`,
    );
  } finally {
    await browser.close();
    server.close();
  }
}
