/** A board is told what another board has read, where it goes by that. */
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import { wantedFar } from '@plain-trowel/core/sketch/far';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { openGateway, type Gateway } from '../gateway.ts';
import { newFolder, report } from '../mailbox/mailboxForTests.ts';
import { Clock, hareWith, publish } from '../telling/tellingForTests.ts';

/** The chilli crate's stick is read by the stern board; its pump stays at the roof board, which reports over HTTP. */
function turned(): Garden {
  const garden = hareWith();
  return {
    ...garden,
    plan: {
      ...garden.plan,
      choices: { ...garden.plan.choices, link: { candidate: 'link-http', reason: '' } },
    },
    calibrations: garden.calibrations.map((one) =>
      one.id === chilliCalibration(garden)
        ? { ...one, place: { ...one.place, boardId: 'stern', supplyV: 5 } }
        : one,
    ),
    channels: garden.channels.map((one) => (one.id === 'channel-c2' ? { ...one, boardId: 'stern' } : one)),
  };
}

const chilliCalibration = ({ channels }: Garden) =>
  channels.find(({ id }) => id === 'channel-c2')?.calibrationId;

const PROGRAM = 'abc0de000009';
let clock: Clock;
let gateway: Gateway;
let seq = 0;

beforeEach(async () => {
  clock = new Clock();
  seq = 0;
  gateway = openGateway(newFolder(), 1e9, clock.now);
  await publish(gateway, turned());
  await gateway.keys.make(turned().id, 'roof', clock.ms);
  await gateway.keys.make(turned().id, 'stern', clock.ms);
  await gateway.teller.step();
});
afterEach(() => gateway.close());

const stern = (counts: number, simulated = false) =>
  gateway.mailbox.put(
    turned().id,
    report((seq += 1), { board: 'stern', readings: [{ n: 'c2', v: counts, agoS: 2 }] }),
    clock.ms,
    simulated,
  );
async function roofIsTold(program: string | null = PROGRAM, standIn = false) {
  const board = { gardenId: turned().id, boardId: 'roof', madeMs: 0, standIn, reads: false };
  const { program: _none, ...bare } = report((seq += 1), { readings: [] });
  const text = JSON.stringify(program === null ? bare : { ...bare, program });
  const heard = await gateway.intake.hear(board, text, { kind: 'own' });
  if (heard.kind !== 'answered') throw new Error(heard.kind);
  return heard.answer.far;
}

describe('the roof board, whose pump goes by a probe at the stern', () => {
  test('wants that probe’s channel, by its program', () => {
    const planned = planBoard(turned(), 'roof');
    expect(planned.ok && wantedFar(planned.plan.inputs)).toContain('channel-c2');
  });
  test('is told what the stern board has read, and nothing before it has', async () => {
    expect(await roofIsTold()).toEqual([]);
    await stern(2100);
    expect(await roofIsTold()).toEqual([{ n: 'channel-c2', v: 2100 }]);
  });
  test('is told nothing older than a minute', async () => {
    await stern(2100);
    clock.pass(50);
    expect(await roofIsTold()).toHaveLength(1);
    clock.pass(20);
    expect(await roofIsTold()).toEqual([]);
  });
  test('is told no reading of a stand-in, unless it is one itself', async () => {
    await stern(2100, true);
    expect(await roofIsTold()).toEqual([]);
    expect(await roofIsTold(PROGRAM, true)).toHaveLength(1);
  });
  test('is told nothing where it runs no program of ours', async () => {
    await stern(2100);
    expect(await roofIsTold(null)).toEqual([]);
  });
  test('is told as the garden is published now', async () => {
    await stern(2100);
    expect(await roofIsTold()).toHaveLength(1);
    await publish(gateway, hareWith());
    expect(await roofIsTold()).toEqual([]);
  });
});
