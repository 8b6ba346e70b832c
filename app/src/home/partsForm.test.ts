import { describe, expect, test } from 'vitest';
import { emptyParts, partsOf, partsSchema, type PartsText } from './partsForm.ts';

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
