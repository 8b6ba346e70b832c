import fc from 'fast-check';
import { expect, test } from 'vitest';
import { csvRecords, guardCell, unguardCell, writeCsv } from './csv.ts';

const read = (text: string, delimiter = ',') =>
  [...csvRecords(text, delimiter)].map(({ line, cells }) => [line, ...cells]);

test('rows are written with commas, CRLF, and quotes only where they are needed', () => {
  expect(
    writeCsv(
      ['name', 'n'],
      [
        ['Mint, trough', 1.5],
        ['say "wet"', null],
        [' edge', -3],
      ],
    ),
  ).toBe('name,n\r\n"Mint, trough",1.5\r\n"say ""wet""",\r\n" edge",-3\r\n');
});

test.each([
  ['=1+1', "'=1+1"],
  ['+44 20', "'+44 20"],
  ['-bed', "'-bed"],
  ['@home', "'@home"],
  ['\tx', "'\tx"],
  ["'=1", "''=1"],
  ['-12.5', '-12.5'],
  ["'t Hof", "'t Hof"],
  ['C2', 'C2'],
  ['a=b', 'a=b'],
])('%j stands in a cell as %j', (text, cell) => {
  expect(guardCell(text)).toBe(cell);
  expect(unguardCell(cell)).toBe(text);
});

test('line numbers are those of the file: blank lines and quoted line ends count', () => {
  expect(read('a,b\n\n\n1,2\r\n"x\ny",3\r4,5')).toEqual([
    [1, 'a', 'b'],
    [4, '1', '2'],
    [5, 'x\ny', '3'],
    [7, '4', '5'],
  ]);
});

test.each([
  [
    'a quote that is never closed takes its own line only',
    '"a,1\nb,2\n',
    [
      [1, 'a,1'],
      [2, 'b', '2'],
    ],
  ],
  ['text behind a closing quote stays', '"a"b,1\n', [[1, 'ab', '1']]],
  ['a quote in the middle is a letter', 'a"b,1\n', [[1, 'a"b', '1']]],
  ['an empty last cell', 'a,\n', [[1, 'a', '']]],
  ['nothing', '', []],
  ['blanks only', '  \n\t\n', []],
])('%s', (_, text, rows) => expect(read(text)).toEqual(rows));

test('semicolons and tabs split as well', () => {
  expect(read('a;"b;c"\n', ';')).toEqual([[1, 'a', 'b;c']]);
});

test('whatever is written is read back unchanged, and no cell begins a formula', () => {
  const text = fc.oneof(
    fc.string({ maxLength: 12 }),
    fc.stringMatching(/^['=+\-@\t]{0,3}[a-z0-9,"\r\n ]{0,5}$/),
  );
  fc.assert(
    fc.property(fc.array(fc.tuple(text, text), { minLength: 1, maxLength: 6 }), (rows) => {
      const written = writeCsv(['one', 'two'], rows);
      const back = [...csvRecords(written, ',')].slice(1).map((row) => row.cells.map(unguardCell));
      expect(back).toEqual(rows);
      for (const { cells } of csvRecords(written, ','))
        for (const cell of cells) expect(cell).not.toMatch(/^[=@\t]|^[+-](?![\d.])/);
    }),
  );
});
