import { describe, expect, test } from 'vitest';
import type { LetterShown, WaysGiven } from '@plain-trowel/core/protocol/telling';
import { awayHeadline, letterText, waysIssue } from './tellingText.ts';

const NOON = Date.UTC(2026, 10, 28, 12);
const MAIL: NonNullable<WaysGiven['mail']> = {
  host: 'mail.invalid',
  port: 465,
  security: 'tls',
  user: '',
  from: 'a@garden.invalid',
  to: 'b@garden.invalid',
};
const NONE: WaysGiven = { mail: null, webhook: null, noteAtMinute: null };

describe('what is wrong with a way is said by its field', () => {
  test.each([
    [{ ...NONE, mail: MAIL }, null],
    [{ ...NONE, mail: { ...MAIL, to: 'nobody' } }, 'To: is no mail address.'],
    [{ ...NONE, mail: { ...MAIL, host: '' } }, 'Mail server: is no name of a server.'],
    [{ ...NONE, mail: { ...MAIL, port: 0 } }, 'Port: a number from 1 to 65535.'],
    [{ ...NONE, webhook: { url: 'garden' } }, 'Address: is no web address.'],
  ])('%j', (ways, said) => {
    expect(waysIssue(ways)).toBe(said);
  });
});

describe('what became of a letter', () => {
  const letter = (change: Partial<LetterShown>): LetterShown => ({
    id: 'l1',
    gardenId: 'hare',
    way: 'mail',
    subject: 'Lemon: too dry',
    madeMs: NOON,
    state: 'waiting',
    tries: 0,
    atMs: NOON,
    why: null,
    ...change,
  });
  test('is never called sent before it was', () => {
    expect(letterText(letter({}), 'UTC')).toBe('On its way by mail.');
    expect(letterText(letter({ tries: 2, why: '451 try later' }), 'UTC')).toBe(
      'Tried by mail 2 times (451 try later); again Sat 28 Nov, 12:00.',
    );
    expect(letterText(letter({ state: 'dead', why: '550 no such mailbox' }), 'UTC')).toBe(
      'Not sent by mail: 550 no such mailbox.',
    );
    expect(letterText(letter({ state: 'sent' }), 'UTC')).toBe('Sent by mail Sat 28 Nov, 12:00.');
  });
});

test('a garden that the gateway does not watch is not said to be watched', () => {
  const telling = { ways: { mail: null, webhook: null, noteAtMinute: null }, letters: [], watched: ['hare'] };
  expect(awayHeadline(telling, 'boat')).toContain('does not watch this garden');
  expect(awayHeadline(telling, 'hare')).toContain('no way to tell you');
});
