import { describe, expect, test } from 'vitest';
import { addPlot, emptyGarden } from '../edits/plots.ts';
import { GARDEN_VERSION } from './schema.ts';
import { readGardenFile, writeGardenFile } from './gardenFile.ts';

const garden = addPlot(
  emptyGarden('Roof', 'Europe/London', { random: () => 0.3, nowIso: '2026-05-01T08:00:00Z' }),
  {
    plotName: 'Mint',
    plant: 'mint',
    probeLabel: 'M1',
    probeKind: 'resistive fork',
    colour: 'red',
    depthCm: 5,
    pin: 'input 1',
    streamName: 'm1',
    board: { name: 'Stern board', traits: '5 V board, 10-bit inputs', adcBits: 10, supplyV: 5 },
    pump: null,
  },
  () => 0.6,
).garden;

/** The garden's file with one field set to something else. */
function damaged(path: readonly (string | number)[], value: unknown): string {
  const copy = JSON.parse(writeGardenFile(garden)) as Record<string | number, unknown>;
  let at = copy;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string | number, unknown>;
  at[path[path.length - 1] ?? ''] = value;
  return JSON.stringify(copy);
}

test('what is written is read back as it was', () => {
  expect(readGardenFile(writeGardenFile(garden))).toEqual({ ok: true, value: garden });
});

test('a byte order mark in front does no harm', () => {
  expect(readGardenFile(`\ufeff${writeGardenFile(garden)}`).ok).toBe(true);
});

describe('refused, with what is wrong', () => {
  test.each([
    ['an empty file', '  \n', { kind: 'empty' }],
    ['a binary file', 'PNG\u0000\u0001', { kind: 'binary' }],
    ['half a file', '{"format":"plain-trowel-garden","ver', { kind: 'not-json' }],
    ['another JSON file', '{"name":"Roof"}', { kind: 'not-a-garden' }],
    ['a list', '[1,2]', { kind: 'not-a-garden' }],
    ['null', 'null', { kind: 'not-a-garden' }],
    [
      'a later version',
      damaged(['version'], 99),
      { kind: 'newer-version', version: 99, known: GARDEN_VERSION },
    ],
    ['a version in words', damaged(['version'], 'one'), { kind: 'bad-version', version: 'one' }],
  ])('%s', (_, text, issue) => {
    expect(readGardenFile(text)).toEqual({ ok: false, issue });
  });

  test.each([
    ['an empty name', ['plots', 0, 'name'], ' ', 'plots[0].name'],
    ['a limit off the scale', ['plots', 0, 'limits', 'startTenths'], 1200, 'plots[0].limits.startTenths'],
    ['limits the wrong way round', ['plots', 0, 'limits', 'startTenths'], 900, 'plots[0].limits.stopTenths'],
    ['band edges that fall', ['plots', 0, 'bandEdges', 2], 100, 'plots[0].bandEdges[2]'],
    ['a probe in no plot', ['probes', 0, 'plotId'], 'plot-gone', 'probes[0].plotId'],
    ['a channel without its board', ['channels', 0, 'boardId'], 'board-gone', 'channels[0].boardId'],
    ['an unknown calibration', ['channels', 0, 'calibrationId'], 'cal-gone', 'channels[0].calibrationId'],
    ['an unknown field', ['plots', 0, 'hue'], 3, 'plots[0].hue'],
    ['an unknown time zone', ['timeZone'], 'Canal/Lock Seven', 'timeZone'],
    ['a date that is none', ['madeAt'], 'yesterday', 'madeAt'],
  ])('%s names the field', (_, path, value, field) => {
    const read = readGardenFile(damaged(path, value));
    expect(read).toMatchObject({ ok: false, issue: { kind: 'field', fault: { field } } });
  });

  test('a number too large to hold names its field', () => {
    const text = writeGardenFile(garden).replace('"depthCm": 5', '"depthCm": 1e309');
    expect(readGardenFile(text)).toMatchObject({
      ok: false,
      issue: { kind: 'field', fault: { field: 'probes[0].depthCm' } },
    });
  });

  test('the same id twice is found', () => {
    const twice = { ...garden, plots: [...garden.plots, ...garden.plots] };
    expect(readGardenFile(JSON.stringify(twice))).toMatchObject({
      ok: false,
      issue: { fault: { field: 'plots[1].id' } },
    });
  });
});
