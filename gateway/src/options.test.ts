import { expect, test } from 'vitest';
import { readOptions } from './options.ts';

test.each([
  [[], {}, 4860],
  [['--port', '5000'], {}, 5000],
  [['--port=5001'], {}, 5001],
  [[], { PORT: '5002' }, 5002],
  [['--port', '5003'], { PORT: '5002' }, 5003],
])('%j with %j listens on %d', (args, environment, port) => {
  expect(readOptions(args, environment)).toEqual({ ok: true, value: { port } });
});

test.each([
  [['--port', 'soon']],
  [['--port', '0']],
  [['--port', '70000']],
  [['--port']],
  [['--prot', '5000']],
])('refuses %j with a sentence', (args) => {
  const read = readOptions(args, {});
  expect(read.ok).toBe(false);
  expect(!read.ok && read.issue).toMatch(/\.$/);
});
