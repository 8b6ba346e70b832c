// npm run shots: the main views of the sample garden as pictures, on a clock that stands still, so that a refresh changes only what changed.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  bin,
  build,
  chromium,
  endAll,
  endWithParent,
  freePort,
  NO_CHROMIUM,
  ready,
  root,
  tied,
} from './ready.mjs';

ready();
const browserPath = chromium({ mayInstall: false });
if (!browserPath) {
  console.error(NO_CHROMIUM);
  process.exit(2);
}
build();
endWithParent();
const port = await freePort();
const address = `http://127.0.0.1:${port}`;
const data = mkdtempSync(join(tmpdir(), 'trowel-shots-'));
tied(bin('tsx'), ['gateway/src/main.ts', '--port', String(port), '--mqtt-port', '0', '--data', data], {
  stdio: 'ignore',
});
const { chromium: browserType } = await import('@playwright/test');
const browser = await browserType.launch({
  executablePath: browserPath,
  args: ['--no-sandbox', '--disable-gpu'],
});

const WIDE = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
const AFTERNOON = new Date('2026-05-01T15:20:00Z');

async function waitForServer() {
  for (let tries = 0; tries < 100; tries += 1) {
    const answer = await fetch(`${address}/healthz`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('the server did not start');
}

/** Opens a page whose clock moves only when told to. */
async function openPage(viewport) {
  const context = await browser.newContext({
    serviceWorkers: 'block',
    viewport,
    timezoneId: 'Europe/London',
    locale: 'en-GB',
    reducedMotion: 'reduce',
  });
  const page = await context.newPage();
  await page.clock.install({ time: AFTERNOON });
  await page.clock.pauseAt(new Date(AFTERNOON.getTime() + 1500));
  return page;
}

/** Lets the page's clock run in small steps, with real time in between for storage, fonts and drawing. */
async function run(page, seconds) {
  for (let step = 0; step < seconds * 4; step += 1) {
    await page.clock.runFor(250);
    await page.waitForTimeout(15);
  }
  await page.evaluate(() => document.fonts.ready);
  // What was on its way to the disk arrives, and is drawn.
  for (let turn = 0; turn < 3; turn += 1) {
    await page.waitForTimeout(250);
    await page.clock.runFor(100);
  }
  await page.waitForTimeout(250);
}

async function shoot(page, name) {
  await page.mouse.move(0, 0);
  await page.evaluate(() => document.activeElement?.blur());
  await page.screenshot({
    path: join(root, 'docs/screenshots', `${name}.png`),
    animations: 'disabled',
    caret: 'hide',
  });
  console.log(`docs/screenshots/${name}.png`);
}

async function openSample(page) {
  await page.goto(`${address}/sample`);
  await until(page, 'text=Hold');
  await alignClock(page);
}

/** Jumps to the next whole ten seconds; every timer then beats from there, so that how long loading took does not show. */
async function alignClock(page) {
  const now = await page.evaluate(() => Date.now());
  await page.clock.pauseAt(new Date(Math.ceil((now + 1) / 10_000) * 10_000));
}

/** Lets the clock run until something is on the screen. */
async function until(page, selector) {
  for (let tries = 0; tries < 400; tries += 1) {
    if (await page.locator(selector).first().isVisible()) return;
    // A millisecond at a time wakes what waits for its turn, and hardly moves the time that the picture shows.
    // What takes its turn much later, such as a sheet that is revealed after a while, is waited for in larger steps.
    await page.clock.runFor(tries < 60 ? 1 : 20);
    await page.waitForTimeout(40);
  }
  throw new Error(`${selector} did not appear`);
}

const toSheet = (page, name) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name, exact: true }).click();
const toView = (page, name) =>
  page
    .getByRole('navigation', { name: /^Views of/ })
    .getByRole('link', { name, exact: true })
    .click();
const toPlot = (page, name) =>
  page.getByRole('navigation', { name: 'Plots' }).getByRole('link', { name }).click();

/** A mixing series on the probe that is open: its numbers, and five mixtures as the stand-in can be made to read. */
async function mixingSeries(page) {
  await page.getByRole('button', { name: 'Calibrate again' }).click();
  await page.getByText('Mixing series', { exact: true }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await run(page, 1);
  const numbers = [
    ['Volume of the container', '1000'],
    ['Container empty', '85'],
    ['Sample of the soil as it is', '115'],
    ['The same sample, oven-dry', '100'],
    ['Soil that goes into the container', '1265'],
  ];
  for (const [label, value] of numbers) {
    const field = page.getByRole('textbox', { name: label, exact: true });
    await field.fill(value);
    await field.press('Enter');
    await run(page, 1);
  }
  await page.getByText(/^hands-free:/).click();
  await run(page, 1);
  const moves = ['Pull the probe out', 'Push it back in', 'Pour 50 ml', 'Pour 50 ml', 'Into the water jar'];
  for (const [at, weight] of ['1351', '1535', '1567', '1596', '1681'].entries()) {
    await page
      .getByRole('button', { name: moves[at] })
      .click({ clickCount: moves[at] === 'Pour 50 ml' ? 5 : 1 });
    await run(page, 70);
    await page.getByLabel('Container now weighs').fill(weight);
    await page.getByLabel('Container now weighs').press('Enter');
    await run(page, 2);
    if (at < 4) await page.getByRole('button', { name: 'Next' }).click();
  }
  await run(page, 8);
  await page.getByRole('region', { name: 'What it adds up to' }).scrollIntoViewIfNeeded();
  await page.evaluate(() => scrollBy(0, 560));
  await run(page, 1);
}

try {
  await waitForServer();
  const wide = await openPage(WIDE);
  await wide.goto(address);
  await run(wide, 1);
  await openSample(wide);
  await toSheet(wide, 'Parts');
  await run(wide, 1);
  await shoot(wide, 'parts');
  await run(wide, 1);
  await toSheet(wide, 'Wiring');
  await until(wide, '.react-flow__node');
  await wide.getByText('one at a time', { exact: true }).click();
  await run(wide, 2);
  await shoot(wide, 'wiring');
  await toView(wide, 'Paper');
  await wide.getByText('placement sheet', { exact: true }).click();
  await run(wide, 1);
  await shoot(wide, 'paper');
  await toSheet(wide, 'Readout');
  await run(wide, 45);
  await wide.keyboard.press('p');
  await run(wide, 12);
  await shoot(wide, 'readout');
  await wide.getByRole('link', { name: /All channels/ }).click();
  await run(wide, 2);
  await shoot(wide, 'channels');
  await toView(wide, 'Bus desk');
  await wide.getByRole('button', { name: 'Open the stand-in bus' }).click();
  await run(wide, 1);
  await wide.getByRole('button', { name: 'Read once' }).click();
  await run(wide, 1);
  await wide.getByText(/Bytes of the last/).click();
  await run(wide, 1);
  await shoot(wide, 'bus');
  await toView(wide, 'This probe');
  await toPlot(wide, /Mint/);
  await run(wide, 2);
  await shoot(wide, 'readout-fault');
  await toPlot(wide, /Chilli/);
  await toSheet(wide, 'Calibrate');
  await run(wide, 2);
  await shoot(wide, 'calibrate');
  await mixingSeries(wide);
  await shoot(wide, 'calibrate-mixing');
  await wide.getByRole('button', { name: 'Give this run up' }).click();
  await wide.getByRole('button', { name: 'Push it back in' }).click();
  await run(wide, 120);
  await wide.evaluate(() => scrollTo(0, 0));
  await toSheet(wide, 'Dose');
  await run(wide, 1);
  await wide.evaluate(() => scrollTo(0, 0));
  await shoot(wide, 'dose');
  await toSheet(wide, 'Limits');
  await run(wide, 2);
  await shoot(wide, 'limits');
  // A start limit that yesterday's readings fell below, so that its timeline has something to show.
  const start = wide.getByRole('group', { name: 'start limit' }).getByRole('textbox').first();
  await start.fill('53');
  await start.press('Enter');
  await run(wide, 1);
  await toView(wide, 'Program');
  await until(wide, 'svg[aria-label^="Timeline"]');
  await run(wide, 2);
  await shoot(wide, 'program');
  await wide.keyboard.press('Control+z');
  await run(wide, 1);
  await toPlot(wide, /Mint/);
  await wide
    .getByRole('navigation', { name: /^Views of/ })
    .getByRole('link', { name: /^Other outputs/ })
    .click();
  await run(wide, 2);
  await shoot(wide, 'outputs');
  await toPlot(wide, /Chilli/);
  // The board's own program, running in the page.
  await toSheet(wide, 'Sketch');
  await until(wide, 'text=Run this very sketch here');
  await wide.getByRole('button', { name: 'Run this very sketch here' }).click();
  await until(wide, 'text=The board runs this very program');
  await run(wide, 2);
  await wide.getByLabel('Type a line').fill('give 1 60');
  await wide.keyboard.press('Enter');
  await until(wide, 'text=# started 1 order');
  await shoot(wide, 'sketch');
  await wide.getByRole('button', { name: 'End it' }).click();
  await run(wide, 1);
  await toSheet(wide, 'Today');
  await run(wide, 3);
  await shoot(wide, 'today');
  await toSheet(wide, 'Log');
  await run(wide, 1);
  await wide.getByText('3 d', { exact: true }).click();
  await run(wide, 2);
  await shoot(wide, 'log');

  const faults = await openPage(WIDE);
  await faults.goto(address);
  await faults.locator('input[type=file]').setInputFiles(join(root, 'docs/examples/ten-faults.garden.json'));
  await until(faults, 'text=No plot yet');
  await toSheet(faults, 'Wiring');
  await until(faults, '.react-flow__node');
  await run(faults, 1);
  await faults.getByRole('button', { name: /share address 0x3c/ }).click();
  await run(faults, 1);
  await faults.getByRole('button', { name: 'Close' }).first().click();
  await faults.evaluate(() => scrollTo(0, 230));
  await run(faults, 1);
  await shoot(faults, 'wiring-faults');

  const phone = await openPage(PHONE);
  await openSample(phone);
  await run(phone, 45);
  await shoot(phone, 'phone-readout');
  await toSheet(phone, 'Today');
  await run(phone, 3);
  await shoot(phone, 'phone-today');
} finally {
  await browser.close();
  endAll();
}
