/**
 * Storage torture: random edits, notes, imports, a disk that fills, clocks that jump, two tabs, and a browser that is killed in the middle of it all. After
 * each round the storage is looked at from outside of the program: every document opens, nothing acknowledged is lost or doubled, no raw value has changed.
 * A few rounds here; two hundred with `npm run test:long`.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, test, type Browser, type BrowserContext, type Page } from '@playwright/test';
import { readGarden } from '../core/src/garden/document/gardenFile.ts';
import { readDay } from '../core/src/records/packDay.ts';
import { readingsOfDay } from '../core/src/records/series.ts';
import { dice } from '../standins/src/random.ts';

// A trace cannot be taken of a browser that is killed.
test.use({ trace: 'off' });

const ROUNDS = Number(process.env.TROWEL_ROUNDS ?? (process.env.TROWEL_LONG ? 200 : 3));
const SEED = Number(process.env.TROWEL_SEED ?? 20_261_127);
const BESIDE = 4;

type Running = {
  readonly process: ChildProcess;
  readonly browser: Browser;
  readonly context: BrowserContext;
};

/** A browser with a profile on disk, as a process that can be killed. */
async function start(profile: string): Promise<Running> {
  // Tied to this run, so that a test that is cut off leaves no browser behind.
  const child = spawn(
    process.execPath,
    [
      join(import.meta.dirname, '../scripts/tied.mjs'),
      '/usr/bin/chromium',
      '--headless=new',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--no-first-run',
      '--remote-debugging-port=0',
      `--user-data-dir=${profile}`,
      'about:blank',
    ],
    { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
  );
  const address = await new Promise<string>((found, fail) => {
    let said = '';
    child.stderr.on('data', (part: Buffer) => {
      said += part.toString();
      const url = /DevTools listening on (ws:\S+)/.exec(said)?.[1];
      if (url) found(url);
    });
    child.once('exit', () => fail(new Error(said)));
  });
  const browser = await chromium.connectOverCDP(address);
  const context = browser.contexts()[0] ?? (await browser.newContext());
  // The whole may take an hour; one step of it may not.
  context.setDefaultTimeout(60_000);
  await context.addInitScript(prepare);
  return { process: child, browser, context };
}

type Write = (value: unknown, key?: IDBValidKey) => IDBRequest<IDBValidKey>;

/** In every page: a disk that can be filled and a clock that can be moved. */
function prepare() {
  const torture = { isFull: false, jumpMs: 0 };
  Object.assign(window, { torture });
  for (const name of ['put', 'add'] as const) {
    const write = Object.getOwnPropertyDescriptor(IDBObjectStore.prototype, name)?.value as Write;
    IDBObjectStore.prototype[name] = function (...args) {
      if (torture.isFull) throw new DOMException('no room', 'QuotaExceededError');
      return Reflect.apply(write, this, args);
    };
  }
  const now = Date.now.bind(Date);
  Date.now = () => now() + torture.jumpMs;
}

const setTorture = (page: Page, change: { isFull?: boolean; jumpMs?: number }) =>
  page.evaluate((to) => void Object.assign((window as unknown as { torture: object }).torture, to), change);

function kill({ process: child }: Running): Promise<void> {
  return new Promise((gone) => {
    child.once('exit', () => gone());
    if (child.exitCode !== null) gone();
    else if (child.pid !== undefined) process.kill(-child.pid, 'SIGKILL');
  });
}

/** What lies in storage, read by a page of the same origin that does not run the program. */
type Stored = {
  readonly docs: readonly unknown[];
  readonly notes: readonly string[];
  readonly readings: readonly (readonly [channel: string, timeMs: number, raw: number, flags: number])[];
};

async function look(context: BrowserContext, address: string): Promise<Stored> {
  const page = await context.newPage();
  await page.goto(`${address}/THIRD-PARTY.txt`);
  const stored = await page.evaluate(
    () =>
      new Promise<Pick<Stored, 'docs' | 'notes'> & { readonly days: string }>((resolve, reject) => {
        const open = indexedDB.open('plain-trowel');
        open.onerror = () => reject(new Error('storage does not open'));
        open.onsuccess = () => {
          const tx = open.result.transaction(['gardens', 'events', 'blocks']);
          const gardens = tx.objectStore('gardens').getAll();
          const events = tx.objectStore('events').getAll();
          const blocks = tx.objectStore('blocks').getAll();
          tx.oncomplete = () => {
            open.result.close();
            resolve({
              docs: (gardens.result as { doc: unknown }[]).map((one) => one.doc),
              notes: (events.result as { event: { kind: string; text: string } }[])
                .filter((one) => one.event.kind === 'note')
                .map((one) => one.event.text),
              // Columns cross over as plain lists, each with its kind.
              days: JSON.stringify(blocks.result, (_, value: unknown) =>
                ArrayBuffer.isView(value)
                  ? { kind: value.constructor.name, list: Array.from(value as unknown as ArrayLike<number>) }
                  : value,
              ),
            });
          };
        };
      }),
  );
  await page.close();
  const { days, ...rest } = stored;
  return { ...rest, readings: readingsIn(days) };
}

const COLUMNS = { Uint8Array, Uint16Array, Uint32Array, Float32Array, Float64Array };

function readingsIn(days: string): Stored['readings'] {
  const records = JSON.parse(days, (_, value: unknown) => {
    const { kind, list } = (value ?? {}) as { kind?: string; list?: number[] };
    const made = Object.entries(COLUMNS).find(([name]) => name === kind)?.[1];
    return made && list ? new made(list) : value;
  }) as unknown[];
  return records.flatMap((record) => {
    const day = readDay(record);
    if (!day) throw new Error('a stored day cannot be read');
    return readingsOfDay(day).map(({ timeMs, raw, flags }) => [day.channelId, timeMs, raw, flags] as const);
  });
}

test('rounds of torture: nothing acknowledged is lost, every document opens, no raw value changes', async ({
  baseURL,
}) => {
  test.setTimeout(60_000 + ROUNDS * 30_000);
  const address = baseURL ?? '';
  const { flat } = dice(SEED);
  const chance = (share: number) => flat() < share;
  const profile = mkdtempSync(join(tmpdir(), 'trowel-torture-'));
  /** What was acknowledged, and what was only asked for: the one must be there once, the other may be. */
  const kept = new Set<string>();
  const asked = new Set<string>();
  const acknowledged = new Map<number, number>();
  const recorded = new Map<string, number>();
  let name = 'The Marigold Hare';
  const maybeNames = new Set<string>();
  let running = await start(profile);
  let kills = 0;

  const log = async (page: Page) => {
    await page.goto(`${address}/g/marigold-hare/season/log?plot=chilli`);
    await expect(page.getByLabel('Write into the log')).toBeVisible();
  };
  const writeNote = async (page: Page, text: string, patient: boolean) => {
    asked.add(text);
    await page.getByLabel('Write into the log').fill(text);
    await page.getByRole('button', { name: 'Write it' }).click();
    if (!patient) return;
    await expect(page.getByLabel('Write into the log')).toHaveValue('');
    kept.add(text);
  };
  const takeIn = async (page: Page, round: number, patient: boolean) => {
    const base = Date.UTC(2026, 0, 1) + round * 3_600_000;
    const rows = Array.from(
      { length: 50 },
      (_, at) => [base + at * 60_000, 1000 + Math.floor(flat() * 1000)] as const,
    );
    // Some of an earlier file again, with other values: the question comes, and mine is kept or theirs put beside.
    const known = [...acknowledged].slice(-20).filter(() => chance(0.3));
    const clashes = known.map(([timeMs, raw]) => [timeMs, raw + 1] as const);
    const text = [...rows, ...clashes].map(
      ([timeMs, raw]) => `${new Date(timeMs).toISOString()},channel-c2,${raw}`,
    );
    await page.getByLabel('Readings CSV file').setInputFiles({
      name: `round-${round}.csv`,
      mimeType: 'text/csv',
      buffer: Buffer.from(['time,channel,raw', ...text].join('\n')),
    });
    if (!patient) return;
    if (clashes.length > 0)
      await page.getByRole('button', { name: chance(0.5) ? /^Keep mine/ : /^Keep both/ }).click();
    await expect(
      page.getByRole('listitem').filter({ hasText: new RegExp(`taken in from round-${round}.csv`) }),
    ).toBeVisible();
    for (const [timeMs, raw] of rows) acknowledged.set(timeMs, raw);
  };
  const rename = async (page: Page, to: string, patient: boolean) => {
    maybeNames.add(to);
    await page
      .getByRole('button', { name: /Garden menu|Torture|Marigold/ })
      .first()
      .click();
    await page.getByRole('menuitem', { name: 'Rename the garden', exact: true }).click();
    await page.getByLabel('Name', { exact: true }).fill(to);
    await page.getByRole('button', { name: 'Keep the name' }).click();
    if (!patient) return;
    await expect(page.getByRole('dialog')).toHaveCount(0);
    name = to;
    maybeNames.clear();
  };

  try {
    for (let round = 0; round < ROUNDS; round += 1) {
      const page = await running.context.newPage();
      if (round === 0) {
        await page.goto(`${address}/sample`);
        await page.waitForURL(/bench\/readout/);
      }
      await log(page);
      const second = chance(0.3) ? await running.context.newPage() : null;
      if (second) await log(second);
      if (chance(0.3))
        await setTorture(page, {
          jumpMs: [3_600_000, -3_600_000, -1.7e12, 4e12][Math.floor(flat() * 4)] ?? 0,
        });
      const steps = 1 + Math.floor(flat() * 4);
      for (let step = 0; step < steps; step += 1) {
        const on = second && chance(0.5) ? second : page;
        const label = `${round}.${step}`;
        const what = flat();
        // What the other tab has just saved must have been heard here, or a person would be told to make the change again.
        if (second) await on.waitForTimeout(400);
        const fills = chance(0.2);
        if (fills) {
          await setTorture(on, { isFull: true });
          await writeNote(on, `full ${label}`, false);
          await on.waitForTimeout(flat() * 1500);
          await setTorture(on, { isFull: false });
          // It catches up by itself; the words stay in the field until then, and may be written a second time by hand: not here.
          await expect(on.getByRole('alert').filter({ hasText: 'The disk is full' })).toHaveCount(0, {
            timeout: 180_000,
          });
          await on.getByLabel('Write into the log').fill('');
        } else if (what < 0.4) await writeNote(on, `note ${label}`, true);
        else if (what < 0.7) await takeIn(on, round * 10 + step, true);
        else await rename(on, `Torture ${label}`, true);
      }
      if (chance(0.6)) {
        // Killed while something is on its way.
        const doing = flat();
        if (doing < 0.4) await writeNote(page, `cut ${round}`, false);
        else if (doing < 0.8) await takeIn(page, round * 10 + 9, false);
        else await rename(page, `Torture cut ${round}`, false);
        await page.waitForTimeout(flat() * 120);
        await kill(running);
        kills += 1;
        running = await start(profile);
      } else {
        await page.close();
        await second?.close();
      }

      const stored = await look(running.context, address);
      expect(stored.docs).toHaveLength(1);
      const read = readGarden(stored.docs[0]);
      expect(read.ok, `round ${round}: the document opens`).toBe(true);
      if (read.ok) {
        expect([name, ...maybeNames], `round ${round}: the name`).toContain(read.value.name);
        ({ name } = read.value);
        maybeNames.clear();
      }
      for (const text of kept)
        expect(
          stored.notes.filter((one) => one === text),
          `round ${round}: "${text}" once`,
        ).toHaveLength(1);
      for (const text of stored.notes.filter((one) => asked.has(one)))
        expect(
          stored.notes.filter((one) => one === text),
          `round ${round}: "${text}" not doubled`,
        ).toHaveLength(1);
      const main = new Map(
        stored.readings
          .filter(([, , , flags]) => (flags & BESIDE) === 0)
          .map(([channel, timeMs, raw]) => [`${channel} ${timeMs}`, raw]),
      );
      for (const [key, raw] of recorded)
        if (main.get(key) !== raw) throw new Error(`round ${round}: ${key} was ${raw}, is ${main.get(key)}`);
      for (const [timeMs, raw] of acknowledged)
        if (main.get(`channel-c2 ${timeMs}`) !== raw)
          throw new Error(
            `round ${round}: ${timeMs} was taken in as ${raw}, is ${main.get(`channel-c2 ${timeMs}`)}`,
          );
      for (const [key, raw] of main) recorded.set(key, raw);
    }
    console.log(
      `${ROUNDS} rounds, ${kills} kills: ${kept.size} notes and ${acknowledged.size} readings acknowledged, all there; ${recorded.size} raw values, none changed`,
    );
  } finally {
    await kill(running);
    rmSync(profile, { recursive: true, force: true });
  }
});
