/** Parts on I2C, asked by the board's own program in the real interpreter. */
import { describe, expect, test } from 'vitest';
import { BUILT_IN } from '@plain-trowel/core/catalogue/catalogue';
import { i2cValue, type I2cRead } from '@plain-trowel/core/catalogue/i2cTalk';
import { BoardOnALine, changedFiles } from './boardForTests.ts';
import { checkOf, i2cBytes, isAskedBy } from './i2cParts.ts';

const bytes = (hex: string): Uint8Array => Uint8Array.from(Buffer.from(hex, 'hex'));

/** A thermometer at 72 and a light sensor at 35 that has to be told to begin. */
async function boardOnI2c(answers: ReadonlyMap<string, Uint8Array>) {
  const asked: string[] = [];
  const line = new BoardOnALine({
    onI2c: (address) => [...answers.keys()].some((one) => one.startsWith(`${address} `)),
    i2c: (address, written) => {
      asked.push(`${address} ${written}`);
      return answers.get(`${address} ${written}`) ?? null;
    },
  });
  line.raw = 1500 * 16;
  await line.board.boot(
    changedFiles('abc000000009', ['i2c.py'], (settings) =>
      settings
        .replace(
          'INPUTS = [',
          'INPUTS = [("i2c", (0, 0, 0, 2), "cold"), ("i2c", (1, 0, 0, 0), "light"), ("i2c", (2, 0, 0, 2), "humid"), ',
        )
        .replace('FED_BY = (None,)', 'FED_BY = (None, None, None, None)')
        .replace('SOURCES = [0]', 'SOURCES = [3]')
        .replace(
          'I2C = None',
          `I2C = Fields(parts=((21, 22, 72, ()), (21, 22, 35, ((1,), (16,))), (21, 22, 68, ())), asks=(
    (0, (), 0, (0,), 2, False, (0, 2, False, True, 100, 256, 0), -5500, 12800),
    (1, (), 0, (), 2, False, (0, 2, False, False, 10, 12, 0), 0, 54612),
    (2, (36, 0), 16, (), 6, True, (3, 2, False, False, 10000, 65535, 0), 0, 10000),
))`,
        ),
    ),
  );
  return { line, asked };
}
const saidOf = (said: string, name: string) =>
  [...said.matchAll(new RegExp(`${name}=(\\S+)`, 'g'))].map((one) => one[1]);

const ANSWERS = new Map([
  ['72 00', bytes('e780')],
  ['35 01/10', bytes('8683')],
  ['35 ', bytes('04b0')],
  ['68 2400', bytes('000081beef92')],
]);

test('they are asked as their sheets say, and said with their decimals', async () => {
  const { line, asked } = await boardOnI2c(ANSWERS);
  await line.seconds(6);
  expect(saidOf(line.said, 'cold')).toEqual(['-24.50', '-24.50', '-24.50']);
  expect(saidOf(line.said, 'humid')).toEqual(['74.58', '74.58', '74.58']);
  // Told to begin in the first second, and asked from the next one on.
  expect(saidOf(line.said, 'light')).toEqual(['28695', '1000', '1000']);
  expect(asked.slice(0, 2)).toEqual(['72 00', '68 2400']);
});

test('nobody there, and a damaged answer, are no readings; the others go on', async () => {
  const { line } = await boardOnI2c(
    new Map(
      [...ANSWERS].map(([key, one]) => [
        key.replace('72', '77'),
        key.startsWith('68') ? bytes('000081beef93') : one,
      ]),
    ),
  );
  await line.seconds(6);
  expect(saidOf(line.said, 'cold')).toEqual([]);
  expect(saidOf(line.said, 'humid')).toEqual([]);
  expect(saidOf(line.said, 'light')).toHaveLength(3);
});

const READS = BUILT_IN.flatMap(({ id, i2c }) =>
  (i2c?.reads ?? []).map((read, at) => [id, at, read] as const),
);

describe('a part that stands in', () => {
  test.each(READS)(
    '%s, read %i: what it says is what was meant, as far as its steps go',
    (_, __, read: I2cRead) => {
      const unit = 10 ** read.decimals;
      for (const share of [0.02, 0.3, 0.77, 0.98]) {
        const value = (read.least + share * (read.most - read.least)) / unit;
        const said = i2cBytes(read, value);
        const word = (said[read.at] ?? 0) * 256 + (said[read.at + 1] ?? 0);
        expect(Math.abs(i2cValue(read, word) - value * unit)).toBeLessThanOrEqual(1 + read.times / read.per);
      }
    },
  );
  test('checks as the sheet works out, and knows what asks for it', () => {
    expect(checkOf(0xbe, 0xef)).toBe(0x92);
    const read = { ...(READS[0]?.[2] as I2cRead), ask: [1, 0xc3, 0x83], from: [0] };
    expect(isAskedBy('01c383/00', read)).toBe(true);
    expect(isAskedBy('01d383/00', read)).toBe(false);
    expect(isAskedBy('00', read)).toBe(false);
  });
});
