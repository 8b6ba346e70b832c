import { expect, test } from 'vitest';
import { broughtIn } from '@plain-trowel/core/garden/bind/contradictions';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { broughtText, budgetText, contradictionText, fieldName } from './contradictionText.ts';

const garden = marigoldHare(Date.UTC(2026, 4, 1));
const [line] = garden.waterLines;
if (!line) throw new Error('no line');

test.each([
  [480, 600, 5, 'A day may ask for 480 ml; 600 ml are allowed.'],
  [480, 130, 1, 'A day may ask for 480 ml; 130 ml are allowed: only the first run is whole.'],
  [480, 300, 2, 'A day may ask for 480 ml; 300 ml are allowed: only the first 2 runs are whole.'],
  [480, 100, 0, 'A day may ask for 480 ml; 100 ml are allowed: not one run is whole.'],
])('%d ml of %d', (askedMl, allowedMl, wholeRuns, words) =>
  expect(budgetText({ askedMl, allowedMl, wholeRuns })).toBe(words),
);

test('what a change has brought in names the line, both sides, and what to do', () => {
  const after = setWaterLine(garden, line.id, { dailyMaxMl: 130 });
  expect(broughtText(broughtIn(garden, after), [])).toBe(
    'Roof pump waters nothing by itself until this is solved: All doses of a round are 480 ml, and a day may have 130 ml. Give fewer or smaller doses, or raise the daily maximum.',
  );
  expect(broughtText([], [])).toBeNull();
});

test('a reservoir that is gone is told by what it leaves', () => {
  expect(broughtText([], [line])).toMatch(
    /^Roof pump has no reservoir to watch any more: nothing stops it when it runs dry/,
  );
});

test('limits: which of the two, and what to do', () => {
  const at = {
    kind: 'limits-beyond',
    at: 'limits',
    against: 'calibration',
    percentKind: 'volumetric',
  } as const;
  expect(contradictionText({ ...at, value: 600, limit: 460 })).toMatch(
    /stop limit, 60\.0 % VWC.*46\.0 % VWC.*Lower it/,
  );
  expect(contradictionText({ ...at, value: 10, limit: 55 })).toMatch(
    /start limit, 1\.0 % VWC.*5\.5 % VWC.*Raise it/,
  );
  expect(fieldName('dailyMax')).toBe('the daily maximum');
});
