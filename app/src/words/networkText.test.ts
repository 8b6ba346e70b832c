import { describe, expect, test } from 'vitest';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import { heardText, mailboxText, mailboxWarnings, networkHeadline } from './networkText.ts';

const NOON = Date.UTC(2026, 10, 28, 12);
const board = (boardId: string, atMs: number | null) => ({
  boardId,
  madeMs: NOON,
  standIn: false,
  heard: atMs === null ? null : { atMs, program: null },
});
const standing = (more: Partial<Standing> = {}): Standing => ({
  published: null,
  boards: [],
  reader: null,
  mailbox: { newest: 0, oldest: 1, bytes: 0, fetchedTo: 0, warnedMs: null, apps: [] },
  reach: { isOpen: false, addresses: [], mqttPort: 4861 },
  limitBytes: 2048e6,
  usedBytes: 0,
  rescues: [],
  nowMs: NOON,
  ...more,
});
const app = (n: number) => ({ id: 'a', name: 'browser a', n, seenMs: NOON });

describe('the panel says first which boards report', () => {
  const headline = (...boards: Standing['boards']) =>
    networkHeadline(standing({ boards }), (id) => `${id} board`);
  test.each([
    [[], 'No board of this garden may report yet: make the first one a key.'],
    [[board('roof', null)], '1 board may report; none has yet.'],
    [[board('roof', NOON - 4000)], 'Latest report: roof board, 4 s ago.'],
    [
      [board('roof', NOON - 4000), board('stern', null)],
      '1 of 2 boards has reported, the latest roof board, 4 s ago.',
    ],
    [
      [board('roof', NOON - 400_000), board('stern', NOON - 500)],
      '2 of 2 boards have reported, the latest stern board, just now.',
    ],
  ])('%#', (boards, text) => expect(headline(...boards)).toBe(text));
});

test('an age is never told as one that is to come', () => {
  expect(heardText({ atMs: NOON + 5000 }, NOON)).toBe('just now');
});

test('the mailbox says what waits, and for whom', () => {
  const mailbox = (newest: number, fetchedTo: number, count: number) =>
    mailboxText(
      standing({
        usedBytes: 1.25e6,
        mailbox: {
          ...standing().mailbox,
          newest,
          fetchedTo,
          apps: Array.from({ length: count }, () => app(fetchedTo)),
        },
      }),
    );
  expect(mailbox(0, 0, 0)).toContain('is empty');
  expect(mailbox(40, 0, 0)).toContain('no browser has fetched any');
  expect(mailbox(40, 40, 1)).toContain('every browser that listens has all of them');
  expect(mailbox(40, 30, 2)).toContain('10 wait for a browser');
});

test('nothing is warned of while all is well, and each danger has its own sentence', () => {
  expect(mailboxWarnings(standing({ usedBytes: 1800e6 }), 'Europe/London')).toEqual([]);
  const all = mailboxWarnings(
    standing({
      usedBytes: 1900e6,
      mailbox: { ...standing().mailbox, warnedMs: NOON },
      rescues: [{ aside: '/srv/damaged', entries: 12, atMs: NOON }],
    }),
    'Europe/London',
  );
  expect(all).toHaveLength(3);
  expect(all[1]).toContain('Sat 28 Nov, 12:00');
  expect(all[2]).toContain('12 reports could be read');
});
