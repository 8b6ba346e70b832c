/** The sample garden's stick on a converter: the board's own program asks it over I2C, and reads what the made-up pot gives, on the converter's scale. */
import { expect, test } from 'vitest';
import { fullScaleOf } from '@plain-trowel/core/garden/bind/channels';
import { catalogueOf, setWiring } from '@plain-trowel/core/garden/edits/plan';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { byId } from '@plain-trowel/core/quantity/byId';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import { addPart, connect } from '@plain-trowel/core/wiring/edit';
import { newWorld } from '../board/world.ts';
import { setupOf } from '../board/setup.ts';
import { marigoldHare } from '../sample/marigoldHare.ts';
import { filesOf, interpreterForTests, pythonFile } from './boardForTests.ts';
import { PyWorld } from './pyWorld.ts';

const START_MS = Date.UTC(2026, 5, 1, 6);

function onAConverter(garden: Garden): Garden {
  const { wiring } = garden;
  const channel = garden.channels.find((one) => one.streamName === 'c2');
  const board = wiring.parts.find(({ stands }) => stands?.list === 'boards' && stands.id === 'roof');
  const stick = wiring.parts.find(
    ({ stands }) => stands?.list === 'probes' && stands.id === channel?.probeId,
  );
  if (!board || !stick) throw new Error('no stick');
  const entry = byId([...catalogueOf(garden).values()], stick.entryId);
  const out = entry?.terminals.find(({ type }) => type === 'analog out')?.id ?? '';
  const free = wiring.wires.filter(({ from, to }) =>
    [from, to].every((end) => !(end.part === stick.id && end.terminal === out)),
  );
  const added = addPart({ ...wiring, wires: free }, catalogueOf(garden), {
    entryId: 'converter-i2c',
    boardId: board.id,
  });
  const ends = [
    [stick.id, out, added.id, 'in0'],
    [added.id, 'sda', board.id, 'p21'],
    [added.id, 'scl', board.id, 'p22'],
  ] as const;
  const wired = ends.reduce(
    (all, [from, at, to, end]) => connect(all, { part: from, terminal: at }, { part: to, terminal: end }),
    added.netlist,
  );
  const parts = wired.parts.map((one) => (one.id === added.id ? { ...one, address: 72 } : one));
  return setWiring({ ...garden, waterLines: [] }, { ...wired, parts });
}

test('what it prints is what the pot gives, beyond what twelve bits could hold', async () => {
  const garden = onAConverter(marigoldHare(START_MS));
  const channel = garden.channels.find((one) => one.streamName === 'c2');
  const planned = planBoard(garden, 'roof');
  if (!planned.ok || !channel) throw new Error(JSON.stringify(planned));
  // 3.3 of 4.096 V.
  expect(fullScaleOf(garden, channel)).toBe(26_399);
  const world = new PyWorld(
    garden,
    'roof',
    planned.plan,
    filesOf(planned.plan),
    newWorld(setupOf(garden), START_MS, 7),
    interpreterForTests,
    pythonFile('host/host.py'),
  );
  await world.start();
  const { lines } = await world.run(20_000, 5000);
  const values = lines.flatMap(({ text }) => Number(/\bc2=(\d+)/.exec(text)?.[1] ?? Number.NaN) || []);
  expect(values.length).toBeGreaterThan(5);
  for (const value of values) {
    expect(value).toBeGreaterThan(0.25 * 26_399);
    expect(value).toBeLessThan(0.8 * 26_399);
  }
});
