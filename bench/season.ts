/** The log over years: a table of a million rows taken in, and a year of eight channels opened and panned. */
import { mkdtempSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { writeGardenFile } from '../core/src/garden/document/gardenFile.ts';
import { READINGS_HEADER, readingsCsvWriter } from '../core/src/records/readingsCsvOut.ts';
import { manyChannels } from './manyChannels.ts';

const ROWS = 1_000_000;
const CHANNELS = 8;
const YEAR_MINUTES = 365 * 1440;
const FROM_MS = Date.UTC(2024, 0, 1);

/** A reading a minute, drying and watered, of as many channels. */
function tableOf(rows: number, channels: number): Buffer {
  const names = Array.from({ length: channels }, (_, at) => `n${at}`);
  const parts: string[] = [`time;${names.join(';')}\n`];
  for (let row = 0; row < rows; row += 1) {
    const values = names.map((_, at) => 1500 + ((row >> 3) % 900) + (((row + at) * 7919) % 13));
    parts.push(`${new Date(FROM_MS + row * 60_000).toISOString().slice(0, 19)}Z;${values.join(';')}\n`);
  }
  return Buffer.from(parts.join(''));
}

/** The same readings as the program's own export. */
function exportOf(rows: number): Buffer {
  const [channel] = manyChannels(1).channels;
  const of = { plot: 'Bench pot', probe: 'N0', channelId: channel?.id ?? '', percentKind: '' };
  const at = Array.from({ length: rows }, (_, row) => row);
  const series = {
    timesMs: Float64Array.from(at, (row) => FROM_MS + row * 60_000),
    raw: Float64Array.from(at, (row) => 1500 + ((row >> 3) % 900)),
    flags: new Uint8Array(rows),
  };
  return Buffer.concat([Buffer.from(READINGS_HEADER), readingsCsvWriter(of, null)(series)]);
}

async function openGarden(browser: Browser, address: string, channels: number): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.goto(address);
  await page.locator('input[type=file]').setInputFiles({
    name: 'years.garden.json',
    mimeType: 'application/json',
    buffer: Buffer.from(writeGardenFile(manyChannels(channels))),
  });
  await page.waitForURL(/bench\/readout/);
  await page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: 'Log', exact: true })
    .click();
  await page.getByLabel('Readings CSV file').waitFor({ state: 'attached' });
  return page;
}

/** Writes down how long each frame took, until it is asked. */
async function frames(page: Page): Promise<() => Promise<readonly number[]>> {
  await page.evaluate(() => {
    const gaps: number[] = [];
    let last = performance.now();
    const frame = (now: number) => {
      gaps.push(now - last);
      last = now;
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
    Object.assign(globalThis, { framesSoFar: () => gaps.splice(0) });
  });
  return () => page.evaluate(() => (globalThis as unknown as { framesSoFar: () => number[] }).framesSoFar());
}

type Taken = { readonly lookedMs: number; readonly takenMs: number; readonly frames: readonly number[] };

/** A table given to the log, looked at and taken in; the waiting of the person between the two does not count. */
async function takeIn(page: Page, file: string, soFar: () => Promise<readonly number[]>): Promise<Taken> {
  await soFar();
  const began = performance.now();
  await page.getByLabel('Readings CSV file').setInputFiles(file);
  const take = page.getByRole('button', { name: /^Take in \d/ });
  await take.waitFor({ timeout: 120_000 });
  const lookedMs = performance.now() - began;
  const pressed = performance.now();
  await take.click();
  await page
    .getByText(/new readings were taken in/)
    .first()
    .waitFor({ timeout: 300_000 });
  return { lookedMs, takenMs: performance.now() - pressed, frames: await soFar() };
}

const seconds = (ms: number) => (ms / 1000).toFixed(1);
const longest = (gaps: readonly number[]) => Math.max(...gaps).toFixed(0);
const median = (gaps: readonly number[]) =>
  gaps.toSorted((a, b) => a - b)[gaps.length >> 1]?.toFixed(0) ?? '?';

/** Hauls the chart to and fro for some seconds, then lets go. @returns frames while it was held, and in the second after */
async function pan(page: Page, soFar: () => Promise<readonly number[]>, length: number) {
  const box = await page.locator('canvas[role=img]').first().boundingBox();
  if (!box) throw new Error('no chart');
  const [x, y] = [box.x + box.width / 2, box.y + 80];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await soFar();
  const began = performance.now();
  for (let at = 0; performance.now() - began < length; at += 1)
    await page.mouse.move(x + 200 * Math.sin(at / 25), y);
  const held = await soFar();
  await page.mouse.up();
  await page.waitForTimeout(1500);
  return { held, after: await soFar() };
}

/** From a day to the whole year, until all channels are drawn and the head says how many readings it holds. @returns ms */
async function openAll(page: Page): Promise<number> {
  await page.getByText('24 h', { exact: true }).click();
  await page.waitForTimeout(1500);
  return page.evaluate(async (readings) => {
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    const head = () => document.querySelector('h1 + p')?.textContent ?? '';
    const button = [...document.querySelectorAll('button')].find((one) => one.textContent === 'All of it');
    const began = performance.now();
    button?.click();
    while (!head().replaceAll(/\s/g, '').includes(readings)) await frame();
    // What was drawn is on the screen when the next frame begins.
    await frame();
    return performance.now() - began;
  }, `${YEAR_MINUTES}readings`);
}

export async function benchSeason(browser: Browser, address: string): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-season-'));
  const table = (name: string, rows: number, channels: number) => {
    const file = join(folder, name);
    writeFileSync(file, tableOf(rows, channels));
    return file;
  };
  console.log('\nLog');
  const exported = await openGarden(browser, address, 1);
  const own = join(folder, 'export.csv');
  writeFileSync(own, exportOf(ROWS));
  const soFarOwn = await frames(exported);
  const beganOwn = performance.now();
  await exported.getByLabel('Readings CSV file').setInputFiles(own);
  await exported
    .getByText(/new readings were taken in/)
    .first()
    .waitFor({ timeout: 300_000 });
  console.log(
    `  ${'a million rows of an export'.padEnd(36)} ${seconds(performance.now() - beganOwn)} s (wanted: 6 s); the longest frame ${longest(await soFarOwn())} ms`,
  );
  await exported.close();
  const long = await openGarden(browser, address, 1);
  const taken = await takeIn(long, table('million.csv', ROWS, 1), await frames(long));
  console.log(
    `  ${'a million rows'.padEnd(36)} ${seconds(taken.lookedMs + taken.takenMs)} s (wanted: 6 s): looked at ${seconds(taken.lookedMs)}, taken in ${seconds(taken.takenMs)}; frames meanwhile ${median(taken.frames)} ms, the longest ${longest(taken.frames)} ms`,
  );
  await long.close();
  const page = await openGarden(browser, address, CHANNELS);
  const year = await takeIn(page, table('year.csv', YEAR_MINUTES, CHANNELS), await frames(page));
  console.log(
    `  ${`${CHANNELS} channels of a year`.padEnd(36)} looked at ${seconds(year.lookedMs)} s, taken in ${seconds(year.takenMs)} s`,
  );
  // As on another day: nothing is in the page's memory yet.
  await page.reload();
  const soFar = await frames(page);
  await page.getByText(/^Also show/).click();
  const others = page.getByRole('region', { name: 'Also over this time' });
  for (const box of await others.getByRole('checkbox').all()) await box.check();
  await page.waitForTimeout(1500);
  const first = await openAll(page);
  const again: number[] = [];
  for (let round = 0; round < 5; round += 1) again.push(await openAll(page));
  console.log(
    `  ${'all of it opened'.padEnd(36)} ${first.toFixed(0)} ms the first time, then ${median(again)} ms, median of 5 (wanted: 400 ms)`,
  );
  await page.getByText('3 months', { exact: true }).click();
  await page.waitForTimeout(1500);
  const { held, after } = await pan(page, soFar, 5000);
  console.log(
    `  ${'panned, 3 months of 8 channels'.padEnd(36)} ${median(held)} ms a frame, the longest ${longest(held)} ms; let go ${longest(after)} ms`,
  );
  const saved = async (name: string, press: () => Promise<void>) => {
    await soFar();
    const began = performance.now();
    const [file] = await Promise.all([page.waitForEvent('download', { timeout: 240_000 }), press()]);
    const tookMs = performance.now() - began;
    const mb = (statSync(await file.path()).size / 1e6).toFixed(0);
    console.log(
      `  ${name.padEnd(36)} ${seconds(tookMs)} s (wanted: 5 s), ${mb} MB; the longest frame ${longest(await soFar())} ms`,
    );
  };
  await saved('the same year exported as CSV', () =>
    page.getByRole('button', { name: 'Export readings as CSV' }).click(),
  );
  await saved('the same as SenML', () => page.getByRole('button', { name: 'As SenML' }).click());
  await saved('the same as a backup', () =>
    page.getByRole('region', { name: 'Backup' }).getByRole('button', { name: 'Save a backup' }).click(),
  );
  await page.close();
}
