import { once } from 'node:events';
import type { AddressInfo, Server } from 'node:net';
import ModbusRTU from 'modbus-serial';
import { afterEach, describe, expect, test } from 'vitest';
import { buildRequest, readAnswer, type Request } from '@plain-trowel/core/bus/frame';
import { BUILT_IN_MAPS, mapOf } from '@plain-trowel/core/bus/registers';
import { Bus } from './bus.ts';
import { answerFrame, FrameCollector, newBusProbe, type BusFault } from './busProbe.ts';
import { readBusOptions } from './options.ts';
import { serveTcp } from './serve.ts';

const seven = mapOf([], 'seven') ?? BUILT_IN_MAPS[0];
if (!seven) throw new Error('no register map');
const probe = newBusProbe(5, seven, 1);
const all: Request = { function: 3, address: 5, register: 0, count: 7 };
const change = (value: number): Request => ({ function: 6, address: 5, register: 0x07d0, value });

describe('a probe on the bus', () => {
  test('answers its own address, with what its soil is like', () => {
    const { bytes } = answerFrame(probe, buildRequest(all));
    const read = readAnswer(all, bytes ?? new Uint8Array());
    expect(read).toMatchObject({ ok: true });
    // Within four times its noise of 0.4 %.
    if (read.ok) expect(Math.abs((read.value[0] ?? 0) - 314)).toBeLessThanOrEqual(6);
  });
  test('keeps quiet for other addresses and for frames that were damaged', () => {
    expect(answerFrame(probe, buildRequest({ ...all, address: 6 })).bytes).toBeNull();
    const damaged = buildRequest(all).map((byte, at) => (at === 3 ? byte ^ 1 : byte));
    expect(answerFrame(probe, damaged).bytes).toBeNull();
  });
  test.each([
    ['a register it has not', { ...all, register: 300, count: 1 }, 2],
    ['an address that cannot be', change(0), 3],
    ['the function it does not know', { ...all, function: 4 as const }, 1],
  ] satisfies [string, Request, number][])('refuses %s', (_, request, code) => {
    const { bytes } = answerFrame(probe, buildRequest(request));
    expect(readAnswer(request, bytes ?? new Uint8Array())).toEqual({
      ok: false,
      issue: { kind: 'exception', code },
    });
  });
  test('takes a new address, and answers to that one from then on', () => {
    const moved = answerFrame(probe, buildRequest(change(9))).probe;
    expect(answerFrame(moved, buildRequest(all)).bytes).toBeNull();
    expect(answerFrame(moved, buildRequest({ ...all, address: 9 })).bytes).not.toBeNull();
  });
  test.each([
    ['no answer', { kind: 'no-answer' }],
    ['wrong CRC', { kind: 'wrong-crc' }],
    ['wrong address', { kind: 'wrong-address', got: 6, wanted: 5 }],
    ['exception', { kind: 'exception', code: 4 }],
  ] satisfies [BusFault, object][])('fault on demand: %s', (fault, issue) => {
    const { bytes } = answerFrame({ ...probe, fault }, buildRequest(all));
    expect(readAnswer(all, bytes ?? new Uint8Array())).toEqual({ ok: false, issue });
  });
  test('a slow one takes over two seconds', () => {
    expect(answerFrame({ ...probe, fault: 'slow' }, buildRequest(all)).delayMs).toBeGreaterThan(2000);
  });
  test('a fault of one in ten spoils about one in ten', () => {
    let now = { ...probe, fault: 'no answer' as BusFault, faultFrac: 0.1 };
    let lost = 0;
    for (let at = 0; at < 1000; at += 1) {
      const answered = answerFrame(now, buildRequest(all));
      now = answered.probe;
      if (!answered.bytes) lost += 1;
    }
    // Four standard deviations of a thousand draws: √(1000·0.1·0.9) = 9.5.
    expect(lost).toBeGreaterThan(62);
    expect(lost).toBeLessThan(138);
  });
});

test('requests are found in pieces, behind noise, one after the other', () => {
  const collector = new FrameCollector();
  const frame = buildRequest(all);
  expect(collector.push([0x00, 0xff, ...frame.subarray(0, 3)])).toEqual([]);
  expect(collector.push([...frame.subarray(3), ...frame])).toEqual([frame, frame]);
  collector.push(frame.subarray(0, 5));
  collector.pause();
  expect(collector.push(frame)).toEqual([frame]);
});

test('two probes with one address spoil each other', () => {
  const bus = new Bus([probe, { ...probe, seed: 99 }]);
  const [answer] = bus.hear(buildRequest(all));
  expect(readAnswer(all, answer?.bytes ?? new Uint8Array()).ok).toBe(false);
});

describe('over TCP, asked by a client that others wrote', () => {
  let server: Server | null = null;
  const client = new ModbusRTU();
  const connect = async (fault: BusFault = 'none') => {
    server = await serveTcp(new Bus([{ ...probe, fault }]), 0);
    await client.connectTelnet('127.0.0.1', { port: (server.address() as AddressInfo).port });
    client.setID(5);
    client.setTimeout(400);
  };
  afterEach(async () => {
    client.close(() => undefined);
    server?.close();
    if (server) await once(server, 'close');
  });
  test('it is read, its address is changed, it refuses what it must', async () => {
    await connect();
    const { data } = await client.readHoldingRegisters(0, 7);
    expect(data).toHaveLength(7);
    await expect(client.readHoldingRegisters(900, 1)).rejects.toThrow(/exception 2/i);
    await client.writeRegister(0x07d0, 12);
    client.setID(12);
    expect((await client.readHoldingRegisters(0x07d0, 1)).data).toEqual([12]);
  });
  test('a silent one runs into the client’s own waiting time', async () => {
    await connect('no answer');
    await expect(client.readHoldingRegisters(0, 7)).rejects.toThrow(/timed out/i);
  });
});

describe('at the terminal', () => {
  test('all has its usual value', () => {
    expect(readBusOptions([])).toMatchObject({
      ok: true,
      value: { kind: 'run', where: { tcpPort: 5020 }, addresses: [1], fault: 'none', faultFrac: 1 },
    });
  });
  test('everything can be told', () => {
    expect(
      readBusOptions(
        '--serial /dev/tty9 --baud 4800 --address 1,7 --map two --fault wrong-crc --rate 0.05'.split(' '),
      ),
    ).toMatchObject({
      value: {
        where: { device: '/dev/tty9', baudRate: 4800 },
        addresses: [1, 7],
        map: { id: 'two' },
        fault: 'wrong CRC',
        faultFrac: 0.05,
      },
    });
  });
  test.each(['--address 0', '--map nine', '--fault rain', '--rate 2', '--tcp 0', '--baud x', '--what'])(
    '%s is answered with a sentence',
    (args) => {
      expect(readBusOptions(args.split(' '))).toMatchObject({
        ok: false,
        issue: expect.stringMatching(/\.$/) as string,
      });
    },
  );
  test('help is asked for', () =>
    expect(readBusOptions(['--help'])).toEqual({ ok: true, value: { kind: 'help' } }));
});
