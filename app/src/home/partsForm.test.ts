import { describe, expect, test } from 'vitest';
import {
  emptyParts,
  emptyStart,
  partsOf,
  partsSchema,
  plotsOf,
  startSchema,
  type PartsText,
} from './partsForm.ts';

const filled: PartsText = { ...emptyParts, plotName: 'Mint trough', probeLabel: 'M1' };
const problems = (text: PartsText): Record<string, string> => {
  const read = partsSchema.safeParse(text);
  return read.success
    ? {}
    : Object.fromEntries(read.error.issues.map((issue) => [String(issue.path[0]), issue.message]));
};

test('names are all that must be typed', () => {
  expect(Object.keys(problems(emptyParts))).toEqual(['plotName', 'probeLabel']);
  expect(problems(filled)).toEqual({});
});

test('numbers may be typed with a decimal comma', () => {
  expect(partsSchema.parse({ ...filled, supplyV: '3,3' }).supplyV).toBe(3.3);
});

describe('refused, with a sentence', () => {
  test.each([
    ['depthCm', '-1'],
    ['depthCm', 'deep'],
    ['depthCm', '1e309'],
    ['adcBits', '9.5'],
    ['adcBits', '30'],
    ['supplyV', '0'],
    ['flowMlPerS', ''],
    ['streamName', ' '],
    ['alike', '0'],
    ['alike', '2.5'],
    ['plotName', 'x'.repeat(61)],
  ] as const)('%s of %j', (field, value) => {
    expect(problems({ ...filled, [field]: value })[field]).toMatch(/\.$|number$/);
  });
});

test('a new board brings its traits, a known one its id; a pump comes only when asked for', () => {
  const read = partsSchema.parse(filled);
  expect(partsOf(read)).toMatchObject({
    board: { name: 'My board', adcBits: 12, supplyV: 3.3 },
    pump: null,
    depthCm: 7,
  });
  expect(partsOf({ ...read, boardChoice: 'board-x', hasPump: true })).toMatchObject({
    board: { id: 'board-x' },
    pump: { flowMlPerS: 10 },
  });
});

describe('a garden of its own', () => {
  const rows = [
    { name: 'Pot', kind: 'pot', alike: '4' },
    { name: 'Back lawn', kind: '', alike: '1' },
  ] as const;
  test('its plots’ names are enough; board and probes are then not chosen yet', () => {
    const read = startSchema.parse({ ...emptyStart, rows });
    expect(plotsOf(read)).toEqual({
      rows: [
        { name: 'Pot', plant: '', kind: 'pot', count: 4 },
        { name: 'Back lawn', plant: '', kind: null, count: 1 },
      ],
      parts: null,
    });
  });
  test('with probes there, the first wants its label', () => {
    const read = startSchema.safeParse({ ...emptyStart, rows, hasProbe: true });
    expect(read.error?.issues.map((issue) => issue.path.join('.'))).toEqual(['probeLabel']);
    const named = startSchema.parse({ ...emptyStart, rows, hasProbe: true, probeLabel: 'B1' });
    expect(plotsOf(named).parts).toMatchObject({ probeLabel: 'B1', board: { adcBits: 12 } });
  });
  test('a row without a name is asked for one', () => {
    const read = startSchema.safeParse({ ...emptyStart, rows: [{ ...rows[0], name: ' ' }] });
    expect(read.error?.issues[0]?.path).toEqual(['rows', 0, 'name']);
  });
});
