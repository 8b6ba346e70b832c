import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { initialLineParser, parseLine, type LineParserState, type LineResult } from './line.ts';

const read = (line: string, state: LineParserState = initialLineParser): LineResult =>
  parseLine(state, line).result;

/** Reads lines in order and gives the result of the last. */
function readAll(lines: readonly string[]): LineResult {
  let state = initialLineParser;
  let result: LineResult = { kind: 'blank' };
  for (const line of lines) ({ state, result } = parseLine(state, line));
  return result;
}

const values = (result: LineResult) =>
  result.kind === 'values'
    ? Object.fromEntries(result.values.map(({ name, value }) => [name, value]))
    : result;

describe('understood', () => {
  test.each([
    ['a bare number', '1512', { value: 1512 }],
    ['a negative bare number', '-3.5', { value: -3.5 }],
    ['a bare number with its unit', '1.23 V', { value: 1.23 }],
    ['a pair with a colon', 'moisture:512', { moisture: 512 }],
    ['a pair with blanks around', ' Soil moisture : 512 ', { 'Soil moisture': 512 }],
    ['pairs with equals signs', 'c2=1512 t=19.5', { c2: 1512, t: 19.5 }],
    ['pairs split by commas', 'c2=1512,mint=498', { c2: 1512, mint: 498 }],
    ['pairs with units', 'raw: 512 counts, T: 19.5C, rh: 40%', { raw: 512, T: 19.5, rh: 40 }],
    ['comma columns', '512,498,0', { 'column 1': 512, 'column 2': 498, 'column 3': 0 }],
    ['semicolon columns', '512;498', { 'column 1': 512, 'column 2': 498 }],
    ['tab columns', '512\t498', { 'column 1': 512, 'column 2': 498 }],
    ['blank columns', '512  498', { 'column 1': 512, 'column 2': 498 }],
    ['a missing column', '512;;498', { 'column 1': 512, 'column 3': 498 }],
    ['a JSON object', '{"c2":1512,"name":"roof","ok":true}', { c2: 1512 }],
    ['a nested JSON object', '{"c2":{"raw":1512}}', { 'c2.raw': 1512 }],
    ['the same name twice', 'a=1 a=2', { a: 1, 'a (2)': 2 }],
  ])('%s', (_, line, expected) => {
    expect(values(read(line))).toEqual(expected);
  });

  test('a header names the columns that follow it', () => {
    expect(values(readAll(['chilli;mint', '512;498']))).toEqual({ chilli: 512, mint: 498 });
  });

  test('a header of another width is not forced onto a line', () => {
    expect(values(readAll(['chilli;mint', '1;2;3']))).toEqual({
      'column 1': 1,
      'column 2': 2,
      'column 3': 3,
    });
  });

  test.each([
    ['a time of day before a number', '16:20:05 1512', { value: 1512 }],
    ['a date before pairs', '2026-03-01T06:30:05Z c2=1512', { c2: 1512 }],
    ['a date before a comma', '2026-03-01T06:30:05Z,1512', { value: 1512 }],
    ['epoch seconds in JSON', '{"time":1772346605,"c2":3}', { c2: 3 }],
    ['uptime in pairs', 'millis=4500 c2=3', { c2: 3 }],
  ])('%s is a time, not a value', (_, line, expected) => {
    const result = read(line);
    expect(values(result)).toEqual(expected);
    expect(result).toHaveProperty('stamp.kind');
  });

  test.each([
    ['seconds', '1772346605;1512'],
    ['milliseconds', '1772346605000 1512'],
    ['microseconds', '1772346605000000,1512'],
    ['nanoseconds', '1772346605000000000\t1512'],
  ])('%s since 1970 in front of a value are its time', (_, line) => {
    expect(read(line)).toMatchObject({ stamp: { kind: 'absolute', ms: 1_772_346_605_000 } });
    expect(Object.values(values(read(line)))).toEqual([1512]);
  });

  test('a date that no garden has is told apart from one that is believed', () => {
    expect(read('1970-01-01T00:00:12Z c2=3')).toMatchObject({ stamp: { kind: 'unbelievable' } });
    expect(read('{"ts":99999999999999,"c2":3}')).toMatchObject({ stamp: { kind: 'unbelievable' } });
  });

  test('a time column is found by its header', () => {
    const result = readAll(['time,c2', '2026-03-01T06:30:05Z,1512']);
    expect(result).toMatchObject({ values: [{ name: 'c2', value: 1512 }], stamp: { kind: 'absolute' } });
  });
});

describe('words and numbers as people print them', () => {
  test.each([
    ['Sensor reading 846', { 'Sensor reading': 846 }],
    ['Moisture is 433', { Moisture: 433 }],
    ['The soil moisture value is: 433.', { 'soil moisture value': 433 }],
    ['433 is the moisture', { moisture: 433 }],
    ['Sensor 1: 432 Sensor 2: 512', { 'Sensor 1': 432, 'Sensor 2': 512 }],
    ['Pot 3 433', { 'Pot 3': 433 }],
    ['Got 512 from sensor 2', { 'Got sensor 2': 512 }],
    ['512 (probe 2)', { 'probe 2': 512 }],
    ['soil 512 (probe 2)', { 'soil probe 2': 512 }],
    ['probe A: 512 probe B: 498', { 'probe A': 512, 'probe B': 498 }],
    ['(538, 22.5)', { 'column 1': 538, 'column 2': 22.5 }],
    ['[512, 498]', { 'column 1': 512, 'column 2': 498 }],
    ["{'soil': 512, 'temp': 21.5}", { soil: 512, temp: 21.5 }],
    ['A0 = 512 | 10%', { A0: 512, 'A0 %': 10 }],
    ['Moisture: 40% (2600)', { 'Moisture %': 40, Moisture: 2600 }],
    ['Raw=512 -> 34%', { Raw: 512, 'Raw %': 34 }],
    ['soil1: 512; pump: OFF', { soil1: 512 }],
    ['soil:512,temp:21,pump:OFF', { soil: 512, temp: 21 }],
    ['soil=2600 (dry)', { soil: 2600 }],
    ['Plant #2: 512 counts (23%), valve closed', { 'Plant #2': 512, 'Plant #2 %': 23 }],
    ['2.31V', { value: 2.31 }],
    ['55 percent', { value: 55 }],
    ['Moisture: 512/1023', { Moisture: 512 }],
    ['Humidity: 45.2 %  Temperature: 21.3 *C', { Humidity: 45.2, Temperature: 21.3 }],
    ['Soil moisture (raw): 512', { 'Soil moisture raw': 512 }],
    ['Feuchte: 2600,5', { Feuchte: 2600.5 }],
    ['temp 22,5 °C, hum 45 %RH', { temp: 22.5, hum: 45 }],
    ['soil=512 air=nan', { soil: 512 }],
  ])('%s', (line, expected) => {
    expect(values(read(line))).toEqual(expected);
  });
  test.each([
    ['2.31V', 'V'],
    ['Moisture: 40%', '%'],
    ['temp: 22.5 °C', '°C'],
    ['wet 55 percent', '%'],
  ])('the unit of %s is kept', (line, unit) => {
    expect(read(line)).toMatchObject({ values: [{ unit }] });
  });
  test.each([
    ['[0.500] moisture: 2600', 500],
    ['12345 moisture: 2600', 12_345],
    ['[12345] moisture is 2600', 12_345],
  ])('a count in front of words is the board’s uptime: %s', (line, ms) => {
    const result = read(line);
    expect(values(result)).toEqual({ moisture: 2600 });
    expect(result).toHaveProperty('stamp', { kind: 'uptime', ms });
  });
  test('a small count in front says which one, so that two never become one', () => {
    const name = (line: string) => Object.keys(values(read(line)))[0];
    expect(name('1 moisture: 2600')).not.toBe(name('2 moisture: 2600'));
  });
});

test.each([
  ['soil 5 bed 7', { soil: 5, bed: 7 }],
  ['soil 5 soil 7', { soil: 5, 'soil (2)': 7 }],
  ['pot 498 pot 512', { pot: 498, 'pot (2)': 512 }],
])('words and numbers in turn are readings, all of them: %s', (line, expected) =>
  expect(values(read(line))).toEqual(expected),
);

test('of made-up sentences every number is found, in order, with the words before it for a name', () => {
  const word = fc.constantFrom('soil', 'bed', 'moisture', 'north', 'level', 'wert', 'feuchte', 'humus');
  const reading = fc.record({
    words: fc.uniqueArray(word, { minLength: 1, maxLength: 3 }),
    link: fc.constantFrom(' ', ': ', ' = ', ' is '),
    value: fc.oneof(
      fc.integer({ min: -99, max: 65_535 }),
      fc.integer({ min: 0, max: 9999 }).map((n) => n / 10),
    ),
    unit: fc.constantFrom('', ' counts', ' °C', '%'),
    end: fc.constantFrom(' ', ', ', '; ', ' | '),
  });
  fc.assert(
    fc.property(fc.array(reading, { minLength: 1, maxLength: 4 }), (readings) => {
      const line = readings
        .map(({ words, link, value, unit, end }) => `${words.join(' ')}${link}${value}${unit}${end}`)
        .join('');
      const result = read(line);
      expect(result.kind === 'values' ? result.values.map((one) => one.value) : result).toEqual(
        readings.map((one) => one.value),
      );
      if (result.kind === 'values')
        for (const [at, { words }] of readings.entries())
          expect(result.values[at]?.name.startsWith(words.join(' '))).toBe(true);
    }),
  );
});

describe('decimal commas', () => {
  test('between semicolons and tabs a comma can only be one', () => {
    expect(values(read('12,5;13,7'))).toEqual({ 'column 1': 12.5, 'column 2': 13.7 });
    expect(values(readAll(['Zeit;Feuchte;Temp', '16:20:05;2600,5;21,3']))).toEqual({
      Feuchte: 2600.5,
      Temp: 21.3,
    });
  });
  test('alone it may be one number or two: both are said, and asked', () => {
    expect(read('2600,5')).toMatchObject({ values: [{ value: 2600 }, { value: 5 }], asks: 'comma' });
    expect(values(read('2600,5', { ...initialLineParser, comma: 'decimal' }))).toEqual({ value: 2600.5 });
    expect(read('2600,5', { ...initialLineParser, comma: 'border' })).not.toHaveProperty('asks');
    expect(read('2600,5,3')).not.toHaveProperty('asks');
    expect(readAll(['soil,temp', '2600,5'])).not.toHaveProperty('asks');
  });
  test('a line that shows it answers for those that do not', () => {
    expect(values(readAll(['1,5;2,5', '2600,5']))).toEqual({ value: 2600.5 });
  });
});

describe('not understood, with the reason', () => {
  test.each([
    ['a sentence', 'Sensor ready', 'no-number'],
    ['a name without a number', 'moisture: high', 'no-number'],
    ['a start that is told in pairs', 'Booting! v=1 (ok)', 'no-number'],
    ['broken JSON', '{"c2":15', 'bad-json'],
    ['JSON without a number', '{"state":"ok"}', 'no-number'],
    ['a value too large to hold', 'c2=1e309', 'not-finite'],
    ['a bare value too large to hold', '1e309', 'not-finite'],
    ['JSON with such a value', '{"c2":1e309}', 'not-finite'],
    ['not a number, said so', 'c2=nan', 'not-finite'],
    ['three digits behind a comma, which may be another column', 'c2=512,498', 'decimal-comma'],
    ['half an object', '{soil: 512', 'bad-json'],
    ['half a tuple', '538, 22.5)', 'no-number'],
    ['what a board says while it starts', 'Booting version 2 after 3 s', 'no-number'],
    ['an address', 'Gateway at 192.168.4.1', 'no-number'],
    ['hexadecimal digits', 'soil 0x13 12', 'no-number'],
    ['an answer of the network', 'MQTT connected after 3 attempts', 'no-number'],
    ['characters of a wrong speed', 'x\u0001\ufffd\ufffd', 'garbage'],
    ['an endless line', '1'.repeat(4097), 'too-long'],
    ['a pair with a value that nothing counts', 'c2=1000000001', 'absurd'],
    ['such a column', '5,-1e12', 'absurd'],
    ['such a value in JSON', '{"c2":1e308}', 'absurd'],
  ])('%s', (_, line, reason) => {
    expect(read(line)).toEqual({ kind: 'not-understood', reason });
  });

  test.each([
    '# stopped 1 dose-done 10 s 120 ml',
    '# line 1 rests min-interval today 0 ml',
    '# version 3 1a2b engine 1',
  ])('what a program says of itself is neither: %s', (line) => {
    expect(read(line)).toEqual({ kind: 'blank' });
  });

  test('a comment with columns is still a header, or readings', () => {
    expect(read('# c2=1512 l1=2240')).toMatchObject({ kind: 'values' });
    expect(read('# time,moisture').kind).not.toBe('blank');
  });

  test('a blank line is neither a reading nor a fault', () => {
    expect(read('  \r')).toEqual({ kind: 'blank' });
  });
});

test('no text whatever makes the parser throw or give a number that is not finite', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ unit: 'binary', maxLength: 80 }), { maxLength: 5 }), (lines) => {
      const result = readAll(lines);
      if (result.kind === 'values')
        for (const { value } of result.values) expect(Number.isFinite(value)).toBe(true);
    }),
  );
});

test.each([
  ['letters without a pair', 'a'.repeat(4096)],
  ['words without a pair', 'ab '.repeat(1365)],
  ['letters and a late sign', `${'a'.repeat(4000)}!=5`],
  ['a name and blanks', `a${' '.repeat(4000)}b`],
  ['blanks between many names', 'a  '.repeat(1365)],
  ['one endless value', `a=${'b'.repeat(4000)}`],
  ['an endless unit', `a=5${'b'.repeat(4000)}!`],
  ['the same name a thousand times', 'a=1 '.repeat(1024)],
  ['brackets', '{"a":'.repeat(800)],
  ['words and numbers by the hundred', 'soil is 5 '.repeat(409)],
  ['numbers glued to letters', 'a5b '.repeat(1024)],
  ['brackets that never close', 'a ('.repeat(1365)],
  ['decimal commas', '1,5; '.repeat(819)],
  ['digits and points', '1.'.repeat(2048)],
])('no line takes long: %s', (_, line) => {
  const took = Array.from({ length: 7 }, () => {
    const began = performance.now();
    read(line);
    return performance.now() - began;
  });
  // The quickest of seven, for other work runs beside this: about 2 ms for the slowest line; it was 180 ms for half as many letters.
  expect(Math.min(...took)).toBeLessThan(25);
});

test('pairs printed by a board come back as they were', () => {
  const name = fc
    .stringMatching(/^[a-z_][a-z0-9_]{0,8}$/)
    .filter((n) => !['time', 'ts', 'ms', 'millis', 'timestamp', 'uptime', 'datetime'].includes(n));
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.tuple(name, fc.integer({ min: 0, max: 65_535 })), {
        minLength: 1,
        maxLength: 6,
        selector: ([n]) => n,
      }),
      (pairs) => {
        expect(values(read(pairs.map(([n, v]) => `${n}=${v}`).join(' ')))).toEqual(Object.fromEntries(pairs));
      },
    ),
  );
});
