import { afterEach, describe, expect, test } from 'vitest';
import { BUILT_IN_MAPS, mapOf } from '@plain-trowel/core/bus/registers';
import { Bus } from '@plain-trowel/standins/busProbe/bus';
import { newBusProbe, type BusFault } from '@plain-trowel/standins/busProbe/busProbe';
import { BusDesk } from './busDesk.ts';
import { standInPort } from './standInPort.ts';

const map = mapOf([], 'three') ?? BUILT_IN_MAPS[0];
if (!map) throw new Error('no map');
const probe = newBusProbe(1, map, 5);
const clocks = { nowMs: () => Date.now(), tickMs: () => performance.now() };
const desks: BusDesk[] = [];
afterEach(async () => {
  for (const desk of desks.splice(0)) await desk.disconnect();
});

async function deskOn(bus: Bus): Promise<BusDesk> {
  const desk = new BusDesk(clocks);
  desks.push(desk);
  await desk.connect(standInPort(bus), 9600, { label: 'Stand-in bus', simulated: true });
  return desk;
}
const faulty = (fault: BusFault, faultFrac = 1) => new Bus([{ ...probe, fault, faultFrac }]);

describe('the bus desk, with a made-up bus behind a port', () => {
  test('reads every field, scaled, and keeps the bytes of both frames', async () => {
    const desk = await deskOn(new Bus([probe]));
    await desk.read({ address: 1, map });
    const { values, last, issue, working } = desk.getSnapshot();
    expect(values.map((one) => one.field.name)).toEqual(['moisture', 'temperature', 'ec']);
    // 31.4 % with a noise of 0.4 %.
    expect(Math.abs((values[0]?.value ?? 0) - 31.4)).toBeLessThan(1);
    expect(last?.sent).toHaveLength(8);
    expect(last?.received).toHaveLength(11);
    expect([issue, working]).toEqual([null, null]);
  });
  test.each([
    ['wrong CRC', 'wrong-crc'],
    ['no answer', 'no-answer'],
    ['wrong address', 'wrong-address'],
    ['exception', 'exception'],
    ['slow', 'no-answer'],
  ] as const)('%s is told as %s', async (fault, kind) => {
    const desk = await deskOn(faulty(fault));
    await desk.read({ address: 1, map });
    expect(desk.getSnapshot().issue?.kind).toBe(kind);
  });
  test('a changed address answers from then on, and its value is read at once', async () => {
    const bus = new Bus([probe]);
    const desk = await deskOn(bus);
    await desk.changeAddress({ address: 1, map }, 9);
    expect(bus.probes.map((one) => one.address)).toEqual([9]);
    expect(desk.getSnapshot().values).toHaveLength(3);
  });
  test('a test counts what goes wrong', async () => {
    const desk = await deskOn(faulty('wrong CRC', 0.3));
    await desk.test({ address: 1, map }, 12);
    const { test: counted } = desk.getSnapshot();
    expect(counted?.reads).toBe(12);
    expect([...(counted?.failed.keys() ?? [])].every((kind) => kind === 'wrong-crc')).toBe(true);
  });
  test('looking for probes can be stopped, and finds what answers on the way', async () => {
    const desk = await deskOn(new Bus([probe, { ...probe, address: 2 }]));
    const running = desk.scan(map);
    await expect.poll(() => desk.getSnapshot().found?.upTo ?? 0).toBeGreaterThanOrEqual(2);
    desk.stop();
    await running;
    expect(desk.getSnapshot().found?.addresses).toEqual([1, 2]);
    expect(desk.getSnapshot().working).toBeNull();
  });
  test('polling hands each round on as a line, named as the garden names it', async () => {
    const desk = await deskOn(new Bus([probe]));
    const lines: string[] = [];
    const running = desk.poll([{ address: 1, map, label: 'B1' }], 20, (text) => {
      lines.push(text);
      if (lines.length === 2) desk.stop();
    });
    await running;
    expect(lines).toHaveLength(2);
    expect(lines[0]).toMatch(/^b1\.moisture=\d+\.?\d* b1\.temperature=\d+\.?\d* b1\.ec=\d+$/);
  });
  test('a port that goes away ends what was under way with a word', async () => {
    const desk = await deskOn(new Bus([probe]));
    const running = desk.test({ address: 1, map }, 1000);
    await expect.poll(() => desk.getSnapshot().test?.reads ?? 0).toBeGreaterThan(1);
    await desk.disconnect();
    await running;
    expect(desk.getSnapshot().label).toBeNull();
  });
});
