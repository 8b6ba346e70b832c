import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { answerSchema, jsonSchemas, MOST_REPORT_BYTES, readReport } from './report.ts';
import { readSenml } from './senml.ts';

const REPORT = {
  board: 'roof',
  boot: 12,
  seq: 345,
  upS: 3600,
  program: 'abc000000009',
  readings: [
    { n: 'c2', v: 1512, agoS: 3 },
    { n: 'b1.moisture', v: 31.4 },
  ],
  said: [{ text: '# stopped 1 dose-done 9 s 81 ml', agoS: 3 }],
  orders: [{ id: 'o17', state: 'refused', why: 'daily-max' }],
};

describe('a report', () => {
  test('is read as it stands; what is not said is now, or nothing', () => {
    expect(readReport(JSON.stringify(REPORT))).toEqual({
      ok: true,
      value: { ...REPORT, readings: [REPORT.readings[0], { n: 'b1.moisture', v: 31.4, agoS: 0 }] },
    });
    const { said: _, orders: __, ...least } = REPORT;
    expect(readReport(JSON.stringify(least))).toMatchObject({ ok: true, value: { said: [], orders: [] } });
  });
  test.each([
    ['a number that is none', { seq: -1 }, 'seq'],
    ['a name with a blank', { readings: [{ n: 'c 2', v: 1 }] }, 'readings'],
    ['a value that is a text', { readings: [{ n: 'c2', v: '1' }] }, 'readings'],
    ['an age before the board can remember', { readings: [{ n: 'c2', v: 1, agoS: 1e9 }] }, 'readings'],
    ['a line with a line feed', { said: [{ text: '# a\n# b' }] }, 'said'],
    ['an order that is nowhere', { orders: [{ id: 'o1', state: 'lost' }] }, 'orders'],
    [
      'more than there may be',
      { readings: Array.from({ length: 501 }, () => ({ n: 'c2', v: 1 })) },
      'readings',
    ],
    ['a field that nobody knows', { key: 'secret' }, 'report'],
  ])('with %s is refused, and its field named', (_, change, field) => {
    const read = readReport(JSON.stringify({ ...REPORT, ...change }));
    expect(read).toMatchObject({ ok: false, issue: { kind: 'field' } });
    if (!read.ok && read.issue.kind === 'field' && field !== 'report')
      expect(read.issue.field).toContain(field);
  });
  test('that is no JSON, or too long, is refused before anything else', () => {
    expect(readReport('{')).toEqual({ ok: false, issue: { kind: 'not-json' } });
    expect(readReport('['.repeat(MOST_REPORT_BYTES + 1))).toEqual({ ok: false, issue: { kind: 'too-long' } });
  });
  test('cannot throw, whatever comes', () => {
    fc.assert(
      fc.property(fc.oneof(fc.json(), fc.string()), (text) => {
        expect(readReport(text).ok).toBe(false);
        expect(readSenml(text, { board: 'b', boot: 1, seq: 1, upS: 1 }, 1e9).ok).toBeTypeOf('boolean');
      }),
      { numRuns: 2000, seed: 7 },
    );
  });
});

test('an answer is lines for the console, the time, and when to come again', () => {
  const answer = {
    seq: 345,
    revision: 8,
    settings: ['set 1 start 35.5'],
    orders: [{ id: 'o18', text: 'give 1 120', liveS: 600 }],
    clock: { daySecond: 43_200, weekday: 5 },
    sun: null,
    everyS: 60,
  };
  expect(answerSchema.safeParse(answer).success).toBe(true);
  expect(answerSchema.safeParse({ ...answer, settings: ['set 1\nload'] }).success).toBe(false);
  expect(answerSchema.safeParse({ ...answer, orders: [{ id: 'o18', text: 'give 1 120' }] }).success).toBe(
    false,
  );
});

describe('SenML', () => {
  const about = { board: 'roof', boot: 1, seq: 2, upS: 60 };
  const NOW_S = 1_795_000_000;
  const readingsOf = (pack: unknown) => {
    const read = readSenml(JSON.stringify(pack), about, NOW_S);
    return read.ok ? read.value.readings : read.issue;
  };
  // RFC 8428, 5.1.2: base name and time hold for the records that follow; times below 2 ** 28 are relative to now.
  test('base fields hold until they are said anew; a name is known without the board’s', () => {
    expect(
      readingsOf([
        { bn: 'roof/', bt: -5, n: 'c2', v: 1512 },
        { n: 'l1', v: 2240, t: -1 },
        { bn: 'urn:dev:mac:0024befffe804ff1:', n: 'air', v: 21.4, u: 'Cel' },
      ]),
    ).toEqual([
      { n: 'c2', v: 1512, agoS: 5 },
      { n: 'l1', v: 2240, agoS: 6 },
      { n: 'air', v: 21.4, agoS: 5 },
    ]);
  });
  test('values add to their base, truth is one, texts are no readings', () => {
    expect(
      readingsOf([
        { n: 'c2', bv: 1000, v: 512 },
        { n: 'rain', vb: true },
        { n: 'name', vs: 'roof' },
      ]),
    ).toEqual([
      { n: 'c2', v: 1512, agoS: 0 },
      { n: 'rain', v: 1, agoS: 0 },
    ]);
  });
  test.each([
    ['ten seconds ago by its clock', NOW_S - 10, 10],
    ['in the future, for its clock is wrong', NOW_S + 3600, 0],
    ['years ago, for its clock is wrong', NOW_S - 9e8, 0],
  ])('a time %s', (_, t, agoS) =>
    expect(readingsOf([{ n: 'c2', v: 1, t }])).toEqual([{ n: 'c2', v: 1, agoS }]),
  );
  test('what must be understood and is not, another version, and what is no pack are refused', () => {
    expect(readingsOf([{ n: 'c2', v: 1, secret_: 1 }])).toEqual({ kind: 'not-understood', label: 'secret_' });
    expect(readingsOf([{ bver: 11, n: 'c2', v: 1 }])).toMatchObject({ kind: 'field' });
    expect(readingsOf({ n: 'c2', v: 1 })).toMatchObject({ kind: 'field' });
  });
});

test('docs/board-protocol.schema.json says the same', () => {
  const path = fileURLToPath(new URL('../../../docs/board-protocol.schema.json', import.meta.url));
  expect(JSON.parse(readFileSync(path, 'utf8'))).toEqual(JSON.parse(JSON.stringify(jsonSchemas())));
});
