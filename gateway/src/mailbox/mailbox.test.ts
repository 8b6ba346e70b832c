import { readFileSync, writeFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { fromRecord, toRecord } from './checked.ts';
import { newFolder, newMailbox, NOON, report } from './mailboxForTests.ts';
import { forgetStarts, tidy } from './retention.ts';

const DAY_MS = 86_400_000;
const KEEPING = { fetchedDays: 30, unfetchedDays: 400 };

describe('the mailbox', () => {
  test('gives what comes after a number, oldest first, and is the same when it is opened again', async () => {
    const folder = newFolder();
    const first = newMailbox(1e9, folder);
    for (let seq = 0; seq < 12; seq += 1) await first.put('hare', report(seq), NOON + seq * 60_000);
    expect(first.after('hare', 0, 5).map(({ n }) => n)).toEqual([1, 2, 3, 4, 5]);
    await first.close();
    const second = newMailbox(1e9, folder);
    expect(second.after('hare', 10, 99).map(({ n, seq }) => [n, seq])).toEqual([
      [11, 10],
      [12, 11],
    ]);
    expect((await second.put('hare', report(3), NOON)).kind).toBe('again');
    await second.close();
  });
  test('calls those who listen, once for each that was kept, after it is on disk', async () => {
    const mailbox = newMailbox();
    const heard: number[] = [];
    const stop = mailbox.onEntry((_, { n }) => heard.push(n));
    await Promise.all([0, 1, 1, 0, 2].map((seq) => mailbox.put('hare', report(seq), NOON)));
    stop();
    await mailbox.put('hare', report(3), NOON);
    expect(heard).toEqual([1, 2, 3]);
    await mailbox.close();
  });
  test('without room refuses, keeps what it has, and takes again once there is room', async () => {
    const mailbox = newMailbox(5000);
    const kinds = [];
    for (let seq = 0; seq < 40; seq += 1) kinds.push((await mailbox.put('hare', report(seq), NOON)).kind);
    const room = kinds.filter((kind) => kind === 'kept').length;
    expect(kinds).toEqual([
      ...Array<string>(room).fill('kept'),
      ...Array<string>(kinds.length - room).fill('full'),
    ]);
    expect(room).toBeGreaterThan(10);
    expect(mailbox.bytes()).toBeLessThanOrEqual(5000);
    await mailbox.fetched('hare', 'phone', { n: room, name: 'Phone' }, NOON);
    expect(await tidy(mailbox, KEEPING, NOON)).toBeGreaterThan(0);
    expect((await mailbox.put('hare', report(room), NOON)).kind).toBe('kept');
    await mailbox.close();
  });
});

describe('a cursor', () => {
  test('never goes back, nor beyond what there is', async () => {
    const mailbox = newMailbox();
    for (let seq = 0; seq < 5; seq += 1) await mailbox.put('hare', report(seq), NOON);
    const at = () => mailbox.holding('hare', NOON).apps[0]?.n;
    for (const [n, becomes] of [
      [3, 3],
      [1, 3],
      [99, 5],
    ] as const) {
      await mailbox.fetched('hare', 'phone', { n, name: 'Phone' }, NOON);
      expect(at()).toBe(becomes);
    }
    await mailbox.close();
  });
  test('of the slowest app holds back what it has not had, unless that app is gone', async () => {
    const mailbox = newMailbox();
    for (let seq = 0; seq < 5; seq += 1) await mailbox.put('hare', report(seq), NOON);
    await mailbox.fetched('hare', 'phone', { n: 5, name: 'Phone' }, NOON);
    await mailbox.fetched('hare', 'laptop', { n: 2, name: 'Laptop' }, NOON);
    expect(mailbox.holding('hare', NOON).fetchedTo).toBe(2);
    // Ninety days later it has been seen once more, and the other has not.
    await mailbox.fetched('hare', 'phone', { n: 5, name: 'Phone' }, NOON + 91 * DAY_MS);
    expect(mailbox.holding('hare', NOON + 91 * DAY_MS).fetchedTo).toBe(5);
    await mailbox.forgetApp('hare', 'laptop');
    expect(mailbox.holding('hare', NOON).fetchedTo).toBe(5);
    await mailbox.close();
  });
});

describe('what leaves', () => {
  /** Five days with a report each, of which an app has had the first two. */
  async function fiveDays() {
    const mailbox = newMailbox();
    for (let day = 0; day < 5; day += 1)
      await mailbox.put('hare', report(day, { upS: day * 86_400 }), NOON + day * DAY_MS);
    return mailbox;
  }
  const numbers = (mailbox: Awaited<ReturnType<typeof fiveDays>>) =>
    mailbox.after('hare', 0, 99).map(({ n }) => n);

  test('is what was fetched, after its days; what nobody has had stays', async () => {
    const mailbox = await fiveDays();
    await mailbox.fetched('hare', 'phone', { n: 2, name: 'Phone' }, NOON + 30.5 * DAY_MS);
    expect(await tidy(mailbox, KEEPING, NOON + 30.5 * DAY_MS)).toBe(1);
    expect(numbers(mailbox)).toEqual([2, 3, 4, 5]);
    await mailbox.fetched('hare', 'phone', { n: 2, name: 'Phone' }, NOON + 100 * DAY_MS);
    await tidy(mailbox, KEEPING, NOON + 100 * DAY_MS);
    expect(numbers(mailbox)).toEqual([3, 4, 5]);
    await mailbox.close();
  });
  test('is what nobody has had, only after four hundred days and a week in which it was said', async () => {
    const mailbox = await fiveDays();
    const warnedAt = (days: number) => mailbox.holding('hare', NOON + days * DAY_MS).warnedMs;
    await tidy(mailbox, KEEPING, NOON + 392 * DAY_MS);
    expect(warnedAt(392)).toBeNull();
    // The gateway was off when the week should have begun.
    await tidy(mailbox, KEEPING, NOON + 403.5 * DAY_MS);
    expect(warnedAt(403.5)).toBe(NOON + 403.5 * DAY_MS);
    await tidy(mailbox, KEEPING, NOON + 410 * DAY_MS);
    expect(numbers(mailbox)).toEqual([1, 2, 3, 4, 5]);
    await tidy(mailbox, KEEPING, NOON + 410.6 * DAY_MS);
    expect(numbers(mailbox)).toEqual([]);
    await mailbox.close();
  });
  test('is said no more once somebody has fetched it', async () => {
    const mailbox = await fiveDays();
    await tidy(mailbox, KEEPING, NOON + 395 * DAY_MS);
    await mailbox.fetched('hare', 'phone', { n: 5, name: 'Phone' }, NOON + 396 * DAY_MS);
    await tidy(mailbox, KEEPING, NOON + 396 * DAY_MS);
    expect(mailbox.holding('hare', NOON + 396 * DAY_MS).warnedMs).toBeNull();
    await mailbox.close();
  });
  test('is not kept a second time when its board sends it once more', async () => {
    const mailbox = await fiveDays();
    await mailbox.fetched('hare', 'phone', { n: 5, name: 'Phone' }, NOON + 60 * DAY_MS);
    await tidy(mailbox, KEEPING, NOON + 60 * DAY_MS);
    expect(numbers(mailbox)).toEqual([]);
    const late = NOON + 60 * DAY_MS;
    expect((await mailbox.put('hare', report(4, { upS: 60 * 86_400 }), late)).kind).toBe('again');
    // Its number counted from 0 again under the same boot number is another thing.
    expect((await mailbox.put('hare', report(0, { upS: 5 }), late)).kind).toBe('kept');
    await mailbox.close();
  });
});

describe('starts of a board', () => {
  const days = (count: number) => NOON + count * DAY_MS;
  /** A board that is switched on once a day, and reports once each time. */
  async function restarting() {
    const mailbox = newMailbox();
    for (let day = 0; day < 5; day += 1)
      await mailbox.put('hare', report(0, { boot: 100 + day, upS: 0 }), days(day));
    await mailbox.fetched('hare', 'laptop', { n: 5, name: 'Laptop' }, days(5));
    return mailbox;
  }
  const kept = (mailbox: Awaited<ReturnType<typeof restarting>>) =>
    [...mailbox.store.boots.getKeys()].map(([, , boot]) => boot);
  test('are forgotten two months later, once nothing of them is left; the latest stays', async () => {
    const mailbox = await restarting();
    await mailbox.fetched('hare', 'laptop', { n: 5, name: 'Laptop' }, days(60));
    await tidy(mailbox, KEEPING, days(63.5));
    expect(await forgetStarts(mailbox, days(63.5))).toBe(2);
    expect(kept(mailbox)).toEqual([102, 103, 104]);
    expect(await forgetStarts(mailbox, days(300))).toBe(2);
    expect(kept(mailbox)).toEqual([104]);
    expect(mailbox.hasHeard('hare', 'roof')).toBe(true);
    expect(mailbox.hasHeard('hare', 'stern')).toBe(false);
    await mailbox.close();
  });
  test('stay for as long as a report of them lies here', async () => {
    const mailbox = await restarting();
    expect(await forgetStarts(mailbox, days(300))).toBe(0);
    await mailbox.close();
  });
});

describe('a record', () => {
  test('is known by its sum, whatever stands in it', () => {
    for (const value of [{ n: 1, text: 'a\nb "c" \u0001trowel ü' }, [], 0])
      expect(fromRecord(toRecord('hare', value))).toEqual({ gardenId: 'hare', value });
  });
  test('with any one byte changed or cut off is none', () => {
    const record = toRecord('hare', report(1));
    for (let at = 0; at < record.length; at += 1) {
      const changed = `${record.slice(0, at)}${record[at] === 'x' ? 'y' : 'x'}${record.slice(at + 1)}`;
      expect(fromRecord(changed)).toBeNull();
      expect(fromRecord(record.slice(0, at))).toBeNull();
    }
  });
});

test('a damaged record is left out, and the others are given', async () => {
  const folder = newFolder();
  const mailbox = newMailbox(1e9, folder);
  for (let seq = 0; seq < 3; seq += 1) await mailbox.put('hare', report(seq), NOON);
  await mailbox.close();
  const file = `${folder}/data.mdb`;
  const bytes = readFileSync(file);
  for (let at = bytes.indexOf('"v":1501'); at >= 0; at = bytes.indexOf('"v":1501', at + 1))
    bytes[at + 4] = 57;
  writeFileSync(file, bytes);
  const again = newMailbox(1e9, folder);
  expect(again.after('hare', 0, 9).map(({ n }) => n)).toEqual([1, 3]);
  await again.close();
});
