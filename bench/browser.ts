/** The built app in Debian's Chromium: first load, first view, and the strip after ten minutes at 50 lines a second. */
import { chromium, type Browser, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { writeGardenFile } from '../core/src/garden/document/gardenFile.ts';
import { appServer } from './appServer.ts';

import { benchBudget } from './budget.ts';
import { bigGarden } from './bigWiring.ts';
import { openManyChannels } from './manyChannels.ts';
import { benchSeason } from './season.ts';

const DIST = join(import.meta.dirname, '../app/dist');

type Manifest = Record<string, { file: string; imports?: string[]; isEntry?: boolean }>;

/** Scripts that the first page asks for, gzipped, bytes. */
function firstScriptBytes(): number {
  const manifest = JSON.parse(readFileSync(join(DIST, '.vite/manifest.json'), 'utf8')) as Manifest;
  const files = new Set<string>();
  const add = (key: string) => {
    const chunk = manifest[key];
    if (!chunk || files.has(chunk.file)) return;
    files.add(chunk.file);
    chunk.imports?.forEach(add);
  };
  Object.keys(manifest)
    .filter((key) => manifest[key]?.isEntry)
    .forEach(add);
  return [...files]
    .filter((file) => file.endsWith('.js'))
    .reduce((sum, file) => sum + gzipSync(readFileSync(join(DIST, file))).length, 0);
}

const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;

async function firstView(browser: Browser, address: string): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < 7; round += 1) {
    const context = await browser.newContext({ serviceWorkers: 'block' });
    const page = await context.newPage();
    const began = performance.now();
    await page.goto(address);
    // Interactive: the first choice can be pressed and answers.
    await page.getByRole('button', { name: /Open the sample garden/ }).click({ trial: true });
    times.push(performance.now() - began);
    await context.close();
  }
  return median(times);
}

/** A board on a serial port that sends `burst` lines at once and then 50 a second. */
async function openFastBoard(page: Page, address: string): Promise<void> {
  // The runner names functions through a helper that the page does not have.
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.addInitScript(() => {
    let feed: ReadableStreamDefaultController<Uint8Array> | null = null;
    let sent = 0;
    const line = () => `value=${Math.round(1500 + 200 * Math.sin(sent / 400) + ((sent++ * 7919) % 13))}\r\n`;
    const port = {
      readable: new ReadableStream<Uint8Array>({ start: (controller) => void (feed = controller) }),
      open: () => Promise.resolve(),
      close: () => Promise.resolve(),
    };
    Object.defineProperty(Navigator.prototype, 'serial', {
      configurable: true,
      get: () => ({ requestPort: () => Promise.resolve(port) }),
    });
    Object.assign(globalThis, {
      sendLines: (count: number) =>
        feed?.enqueue(new TextEncoder().encode(Array.from({ length: count }, line).join(''))),
      every20Ms: () => setInterval(() => feed?.enqueue(new TextEncoder().encode(line())), 20),
    });
  });
  await page.goto(`${address}/new`);
  await page.getByLabel('Plot', { exact: true }).fill('Bench pot');
  await page.getByLabel('I have them already').check();
  await page.getByLabel('Label on the probe').fill('B1');
  await page.getByLabel('Name that the board prints').fill('value');
  await page.getByRole('button', { name: 'Make the garden' }).click();
  await page.getByText('A board on a serial port').click();
  await page.getByRole('button', { name: 'Choose the port' }).click();
  await page
    .getByText('10 min', { exact: true })
    .waitFor({ state: 'attached' })
    .catch(() => undefined);
  await page.evaluate(() => (globalThis as unknown as { every20Ms: () => void }).every20Ms());
  await page.getByRole('button', { name: /^Reading now/ }).waitFor();
  await page.getByText('10 min', { exact: true }).click();
}

type Smoothness = { framesPerS: number; worstFrameMs: number; busyShare: number };

/** Watches the page for some seconds: frames drawn, the longest wait for one, and the share of time spent in tasks over 50 ms. */
const watch = (page: Page, seconds: number): Promise<Smoothness> =>
  page.evaluate(
    (length) =>
      new Promise<Smoothness>((resolve) => {
        const gaps: number[] = [];
        let busyMs = 0;
        const observer = new PerformanceObserver((list) =>
          list.getEntries().forEach((entry) => (busyMs += entry.duration)),
        );
        observer.observe({ type: 'longtask' });
        const began = performance.now();
        let last = began;
        const frame = (now: number) => {
          gaps.push(now - last);
          last = now;
          if (now - began < length * 1000) requestAnimationFrame(frame);
          else {
            observer.disconnect();
            resolve({
              framesPerS: gaps.length / length,
              worstFrameMs: Math.max(...gaps),
              busyShare: busyMs / (length * 1000),
            });
          }
        };
        requestAnimationFrame(frame);
      }),
    seconds,
  );

/** The big wiring opened as a file, and one part dragged about for some seconds. */
async function dragBig(browser: Browser, address: string): Promise<Smoothness> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.goto(address);
  await page.locator('input[type=file]').setInputFiles({
    name: 'big.garden.json',
    mimeType: 'application/json',
    buffer: Buffer.from(writeGardenFile(bigGarden())),
  });
  await page.waitForURL(/bench\/readout/);
  await page.goto(page.url().replace('bench/readout', 'plan/wiring'));
  const board = page.locator('.react-flow__node').filter({ hasText: 'Board 1' }).first();
  await board.waitFor();
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Fit View' }).click();
  await page.waitForTimeout(500);
  const box = await board.boundingBox();
  if (!box) throw new Error('the board is not in the picture');
  await page.mouse.move(box.x + 30, box.y + 8);
  await page.mouse.down();
  const dragging = { on: true };
  const drag = (async () => {
    for (let at = 0; dragging.on; at += 1)
      await page.mouse.move(box.x + 30 + 90 * Math.sin(at / 12), box.y + 8 + 60 * Math.cos(at / 12) - 60);
  })();
  const seen = await watch(page, 5);
  dragging.on = false;
  await drag;
  const dragged = await board.boundingBox();
  if (!dragged || Math.abs(dragged.x - box.x) + Math.abs(dragged.y - box.y) < 20)
    throw new Error('the part did not move');
  await page.mouse.up();
  await page.close();
  return seen;
}

/** From the press to the drawn chart and its first sentence, ms; the chunks of the sheet are fetched before. */
async function openLog(page: Page): Promise<number> {
  const stations = page.getByRole('navigation', { name: 'Stations' });
  await stations.getByRole('link', { name: 'Log', exact: true }).click();
  await page.locator('canvas[role=img]').waitFor();
  await stations.getByRole('link', { name: 'Readout', exact: true }).click();
  await page.getByRole('button', { name: /^Reading now/ }).waitFor();
  const began = performance.now();
  await stations.getByRole('link', { name: 'Log', exact: true }).click();
  await page.locator('canvas[role=img]').waitFor();
  await page.getByText(/ readings\./).waitFor();
  return performance.now() - began;
}

const say = (what: string, seen: Smoothness) =>
  console.log(
    `  ${what.padEnd(36)} ${seen.framesPerS.toFixed(0)} frames/s, worst ${seen.worstFrameMs.toFixed(0)} ms, ${(seen.busyShare * 100).toFixed(1)} % of the time in tasks over 50 ms`,
  );

export async function benchBrowser(options: {
  tenMinutes: boolean;
  only: 'budget' | 'season' | null;
}): Promise<void> {
  const server = appServer(DIST);
  await new Promise((ready) => server.once('listening', ready));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    if (options.only !== 'season') await benchBudget(browser, address);
    if (options.only !== 'budget') await benchSeason(browser, address);
    if (options.only !== null) return;
    console.log('\nBrowser');
    console.log(
      `  ${'first scripts, gzipped'.padEnd(36)} ${(firstScriptBytes() / 1000).toFixed(0)} kB (wanted: under 220 kB)`,
    );
    console.log(
      `  ${'first view interactive'.padEnd(36)} ${(await firstView(browser, address)).toFixed(0)} ms, median of 7 (wanted: under 1500 ms)`,
    );
    say('a part dragged, 80 parts on the picture', await dragBig(browser, address));
    const many = await openManyChannels(browser, address);
    say('16 channels at 10 lines/s, all shown', await watch(many, 15));
    await many.close();
    const page = await browser.newPage();
    await openFastBoard(page, address);
    await page.waitForTimeout(3000);
    const fresh = await watch(page, 15);
    say('strip, first minute at 50 lines/s', fresh);
    if (options.tenMinutes) await page.waitForTimeout(600_000);
    else
      await page.evaluate(() =>
        (globalThis as unknown as { sendLines: (count: number) => void }).sendLines(30_000),
      );
    await page.waitForTimeout(3000);
    const full = await watch(page, 15);
    say(options.tenMinutes ? 'strip, after ten minutes of it' : 'strip, after 30 000 more lines', full);
    console.log(
      `  ${'frames then ÷ frames at first'.padEnd(36)} ${(full.framesPerS / fresh.framesPerS).toFixed(2)}`,
    );
    const openedMs = await openLog(page);
    console.log(`  ${'log opened at 50 lines/s'.padEnd(36)} ${openedMs.toFixed(0)} ms`);
    say('log open at 50 lines/s', await watch(page, 15));
  } finally {
    await browser.close();
    server.close();
  }
}
