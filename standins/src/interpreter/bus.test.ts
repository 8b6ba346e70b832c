/** Probes on a bus, asked by the board's own program in the real interpreter. */
import { expect, test } from 'vitest';
import { BUILT_IN_MAPS, type RegisterMap } from '@plain-trowel/core/bus/registers';
import { answerFrame, newBusProbe, type BusFault } from '../busProbe/busProbe.ts';
import { BoardOnALine, changedFiles } from './boardForTests.ts';

const MAP = BUILT_IN_MAPS[0] as RegisterMap;

/** Two probes, of which the second is colder than freezing; each may have a fault. */
async function boardOnABus(fault: BusFault, direction = 'None') {
  const probes = [
    { ...newBusProbe(1, MAP, 7), soil: { ...newBusProbe(1, MAP, 7).soil, moisture: 31.4 }, fault },
    { ...newBusProbe(2, MAP, 9), soil: { ...newBusProbe(2, MAP, 9).soil, temperature: -3.2 } },
  ];
  const frames: string[] = [];
  const line = new BoardOnALine({
    bus: (frame) => {
      frames.push(Buffer.from(frame).toString('hex'));
      for (const probe of probes) {
        const { bytes } = answerFrame(probe, frame);
        if (bytes) return bytes;
      }
      return null;
    },
  });
  line.raw = 1500 * 16;
  await line.board.boot(
    changedFiles('abc000000009', ['bus.py'], (settings) =>
      settings
        .replace(
          'INPUTS = [',
          'INPUTS = [("bus", (0, 0, 0, 1, 1, 1, 0), "b1.moisture"), ("bus", (1, 1, 1, 1, 1, 1, 0), "b2.temperature"), ',
        )
        .replace('FED_BY = (None,)', 'FED_BY = (None, None, None)')
        .replace('SOURCES = [0]', 'SOURCES = [2]')
        .replace(
          'BUS = None',
          `BUS = Fields(tx=16, rx=17, direction=${direction}, baud=9600, probes=((1, 3, 0, 2), (2, 3, 0, 2)))`,
        ),
    ),
  );
  return { line, frames };
}
const valuesOf = (said: string, name: string): number[] =>
  [...said.matchAll(new RegExp(`${name}=(-?[\\d.]+)`, 'g'))].map((one) => Number(one[1]));

test('they are asked in turn, one a second, with frames as the standard has them', async () => {
  const { line, frames } = await boardOnABus('none');
  // The first answer is read in the second after the one in which it was asked for.
  await line.seconds(7);
  // Address 1, function 3, two registers from 0 on: its check value is C4 0B in every table.
  expect(frames.slice(0, 2)).toEqual(['010300000002c40b', '020300000002c438']);
  expect(frames).toHaveLength(7);
  const [moisture, degrees] = [valuesOf(line.said, 'b1.moisture'), valuesOf(line.said, 'b2.temperature')];
  expect(moisture).toHaveLength(3);
  expect(degrees).toHaveLength(3);
  for (const one of moisture) expect(Math.abs(one - 31.4)).toBeLessThan(1);
  // Below nothing it is no 6550 degrees.
  for (const one of degrees) expect(Math.abs(one + 3.2)).toBeLessThan(0.3);
});

test.each<BusFault>(['no answer', 'wrong CRC', 'wrong address', 'exception'])(
  '%s: that probe gives no reading, and the other one goes on',
  async (fault) => {
    const { line } = await boardOnABus(fault);
    await line.seconds(9);
    expect(valuesOf(line.said, 'b1.moisture')).toEqual([]);
    expect(valuesOf(line.said, 'b2.temperature')).toHaveLength(4);
  },
);

test('a transceiver with a direction pin speaks only while it asks', async () => {
  const { line } = await boardOnABus('none', '18');
  await line.seconds(3);
  expect(line.levels.filter((one) => one.startsWith('18 '))).toEqual([
    '18 0',
    '18 1',
    '18 0',
    '18 1',
    '18 0',
    '18 1',
    '18 0',
  ]);
});
