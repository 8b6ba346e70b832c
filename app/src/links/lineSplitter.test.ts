import fc from 'fast-check';
import { expect, test } from 'vitest';
import { LineSplitter } from './lineSplitter.ts';

test('lines come out whole, however the pieces fall', () => {
  const splitter = new LineSplitter();
  expect(splitter.push('c2=15')).toEqual([]);
  expect(splitter.push('12\r\nc2=1513\nc2')).toEqual(['c2=1512', 'c2=1513']);
  expect(splitter.push('=9\n')).toEqual(['c2=9']);
});

test('a line end cut between its two characters is one line end', () => {
  const splitter = new LineSplitter();
  expect([...splitter.push('1\r'), ...splitter.push('\n2\r'), ...splitter.push('\n')]).toEqual(['1', '2']);
});

test('a line without an end is given out once, cut; the rest of it is dropped and the next line is whole', () => {
  const splitter = new LineSplitter();
  expect(splitter.push('x'.repeat(25), 10)).toEqual(['x'.repeat(11)]);
  expect(splitter.push('y'.repeat(25), 10)).toEqual([]);
  expect(splitter.push('z\nc2=9\n', 10)).toEqual(['c2=9']);
});

test('a long line that has an end is cut as well', () => {
  expect(new LineSplitter().push(`${'x'.repeat(25)}\nc2=9\n`, 10)).toEqual(['x'.repeat(11), 'c2=9']);
});

test('any cutting gives the same lines', () => {
  const lines = fc.array(fc.stringMatching(/^[a-z0-9=]{0,12}$/), { minLength: 1, maxLength: 8 });
  fc.assert(
    fc.property(lines, fc.integer({ min: 1, max: 40 }), (rows, size) => {
      const text = rows.map((row) => `${row}\r\n`).join('');
      const splitter = new LineSplitter();
      const out: string[] = [];
      for (let at = 0; at < text.length; at += size) out.push(...splitter.push(text.slice(at, at + size)));
      expect(out).toEqual(rows);
    }),
  );
});
