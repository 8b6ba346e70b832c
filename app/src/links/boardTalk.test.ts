/** The page follows a real board by what it says. */
import { describe, expect, test } from 'vitest';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { BoardTalk } from '@plain-trowel/core/following/boardTalk';
import type { SourceUpdate } from './lineSource.ts';

const NOON_MS = Date.UTC(2026, 5, 1, 11);
const garden = marigoldHare(NOON_MS);

function following(boardId: string) {
  const typed: string[] = [];
  const talk = new BoardTalk(garden, boardId, false, (text) => typed.push(text));
  const hear = (...lines: readonly string[]): SourceUpdate[] =>
    lines.flatMap((line) => talk.hear(line, NOON_MS));
  return { talk, typed, hear };
}
const lastAnswers = (updates: readonly SourceUpdate[]) =>
  updates.flatMap((one) => (one.kind === 'answers' ? [one.answers] : [])).at(-1);

describe('a board that never says what it runs', () => {
  test('is never typed to', () => {
    const { talk, typed, hear } = following('roof');
    hear('c2=1512', '# hello', '# no: not understood');
    talk.look(NOON_MS + 60_000);
    expect(typed).toEqual([]);
    expect(talk.board).toBeNull();
  });
});

describe('a board that says what it runs', () => {
  const VERSION = '# version 3 0123456789ab engine 1';

  test('is told the time, and asked for its limits and how it stands', () => {
    const { talk, typed, hear } = following('roof');
    hear(VERSION, '# lines line-roof');
    // 11:00 UTC is noon by a British clock in June; the first was a Monday.
    expect(typed).toEqual(['clock 43200 0', 'limits']);
    talk.look(NOON_MS);
    expect(typed.at(-1)).toBe('all');
    expect(talk.board?.numberOf('line-roof')).toBe(1);
  });

  test('a line is skipped for as long as the board goes on saying so, and its end does not waver', () => {
    const { talk, typed, hear } = following('roof');
    hear(VERSION, '# lines line-roof');
    talk.order({ lineId: 'line-roof', kind: 'skip', forS: 3600 });
    expect(typed.at(-1)).toBe('skip 1 3600');
    const standing = '# line 1 rests switched-off today 0 ml';
    const endOf = (updates: readonly SourceUpdate[]) =>
      lastAnswers(updates)?.lines['line-roof']?.skippedUntilMs;
    expect(endOf(hear(standing))).toBe(null);
    expect(endOf(hear(standing, '# skip 1 3600 s'))).toBe(NOON_MS + 3_600_000);
    // The same moment, told a second off.
    expect(endOf(hear(standing, '# skip 1 3599 s'))).toBe(NOON_MS + 3_600_000);
    expect(endOf(hear(standing, '# skip 1 7200 s'))).toBe(NOON_MS + 7_200_000);
    // It was let go, or the board has restarted and knows nothing of it.
    expect(endOf(hear('# line 1 rests not-below-start today 0 ml'))).toBe(null);
    expect(hear('# skip 2 60 s')).toEqual([]);
  });

  test('with contacts it is told the sun as well, once it has said that it has any', () => {
    const { typed, hear } = following('stern');
    hear(VERSION, '# lines');
    expect(typed.some((one) => one.startsWith('sun'))).toBe(false);
    hear('# contacts galley-light');
    const [, rise, set] = /^sun (\d+) (\d+)$/.exec(typed.at(-1) ?? '') ?? [];
    // At 52.3° north on the first of June the sun rises before five and sets after nine by the clock.
    expect(Number(rise)).toBeLessThan(5 * 3600);
    expect(Number(set)).toBeGreaterThan(21 * 3600);
  });

  test('how a contact stands is an answer, and its switching an event of the log', () => {
    const { talk, hear } = following('stern');
    hear(VERSION, '# lines', '# contacts galley-light');
    const stood = lastAnswers(hear('# contact 1 is on in-hours today 1800 s'));
    expect(stood?.contacts['galley-light']).toMatchObject({
      isOn: true,
      isResting: false,
      reason: 'in-hours',
      dayS: 1800,
    });
    const events = hear('# contact 1 off outside-hours 2700 s').flatMap((one) =>
      one.kind === 'events' ? one.events : [],
    );
    expect(events).toMatchObject([
      { kind: 'contact-off', contactName: 'Galley light', use: 'light', onS: 2700, simulated: false },
    ]);
    expect(talk.board?.program.events.at(-1)?.said).toMatchObject({ kind: 'contact-event', contact: 1 });
  });

  test('a contact or a line that it has not named is nobody', () => {
    const { hear } = following('stern');
    expect(hear(VERSION, '# contacts galley-light', '# contact 2 on dark', '# started 1 order 3 s')).toEqual(
      [],
    );
  });
});
