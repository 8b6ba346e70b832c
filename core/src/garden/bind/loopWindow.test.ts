import { expect, test } from 'vitest';
import { firstChannel, onePlot } from '../edits/gardenForTests.ts';
import { setWiring } from '../edits/plan.ts';
import type { Garden } from '../document/schema.ts';
import { sketchNetlist } from '../../wiring/sketchNetlist.ts';
import { windowOf } from './scale.ts';

const plain = onePlot();
const { probeId, boardId } = firstChannel(plain);
const loop: Garden = {
  ...plain,
  probes: plain.probes.map((one) => ({ ...one, kind: '4–20 mA soil probe' as const })),
};

function windowWith(wires: string, addresses: Record<string, number> = {}) {
  const wiring = sketchNetlist(`b: board-wifi-two-groups; x: probe-loop; ${wires}`, {
    parts: {
      b: { stands: { list: 'boards', id: boardId } },
      x: { stands: { list: 'probes', id: probeId ?? '' } },
    },
  });
  const parts = wiring.parts.map((one) => ({ ...one, address: addresses[one.id] ?? one.address }));
  const garden = setWiring(loop, { ...wiring, parts });
  return windowOf(garden, firstChannel(garden));
}

test('a broken loop is no reading, and neither is one that is beyond what a probe gives: 3.6 and 21 mA over its shunt', () => {
  // 150 ohms: 0.54 V and 3.15 V of 3.3 V, in 4095 steps 670.1 and 3908.9.
  expect(windowWith('s: shunt; x.minus - s.in; x.minus - b.p34')).toEqual({
    lowCounts: 671,
    highCounts: 3908,
  });
});
test('on the input of a converter it is the same, in its counts', () => {
  // 0.54 V and 3.15 V of 4.096 V, in 32767 steps.
  const found = windowWith(
    's: shunt; c: converter-i2c; c.sda - b.p21; c.scl - b.p22; x.minus - s.in; x.minus - c.in0',
    {
      c: 72,
    },
  );
  expect(Math.abs(found.lowCounts - (0.54 / 4.096) * 32_767)).toBeLessThan(2);
  expect(Math.abs(found.highCounts - (3.15 / 4.096) * 32_767)).toBeLessThan(2);
});
test('without a shunt that is drawn nothing more than its rails is known', () => {
  expect(windowWith('x.minus - b.p34')).toEqual({ lowCounts: 20, highCounts: 4075 });
});
