/** Settings that lie at the gateway until their board reports. */
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Report } from '@plain-trowel/core/protocol/report';
import { newGateway, served } from '../gatewayForTests.ts';
import type { Gateway } from '../gateway.ts';
import { NOON, report } from '../mailbox/mailboxForTests.ts';

const PROGRAM = 'abc0de000009';
const LEFT = { frame: 'abc0de', lines: ['set 1 start 40.0', 'save'] };
const AT = '/api/gardens/hare/boards/roof/settings';

let gateway: Gateway;
let site: Awaited<ReturnType<typeof served>>;
let seq = 0;
beforeEach(async () => {
  gateway = newGateway(() => NOON);
  site = await served(gateway);
  seq = 0;
});
afterEach(() => site.close());

/** What the board is told after a report. */
async function told(more: Partial<Report> = {}) {
  const heard = await gateway.intake.hear(
    { gardenId: 'hare', boardId: 'roof', madeMs: NOON, standIn: false, reads: false },
    JSON.stringify(report((seq += 1), { program: PROGRAM, ...more })),
    { kind: 'own' },
  );
  if (heard.kind !== 'answered') throw new Error(heard.kind);
  return { revision: heard.answer.revision, settings: heard.answer.settings };
}
const state = async () => {
  const { settings } = (await site.ask('GET', AT)).said as {
    settings: { state: string; why: string | null } | null;
  };
  return settings && [settings.state, settings.why];
};

describe('settings left for a board', () => {
  test('go out with every answer until it says that it has them, and never after', async () => {
    expect(await told()).toEqual({ revision: 0, settings: [] });
    await site.ask('PUT', AT, LEFT);
    expect(await told()).toEqual({ revision: 1, settings: LEFT.lines });
    expect(await told()).toEqual({ revision: 1, settings: LEFT.lines });
    expect(await state()).toEqual(['waiting', null]);
    expect(await told({ revision: 1 })).toEqual({ revision: 1, settings: [] });
    expect(await state()).toEqual(['taken', null]);
    // After a restart it has them from its own memory, and says no revision.
    expect(await told({ boot: 99 })).toEqual({ revision: 0, settings: [] });
  });
  test('a board that cannot keep them is told them again after a restart, until another program runs there', async () => {
    await site.ask('PUT', AT, { ...LEFT, lines: ['set 1 start 40.0'] });
    expect((await told()).settings).toEqual(['set 1 start 40.0']);
    expect((await told({ revision: 1 })).settings).toEqual([]);
    expect(await state()).toEqual(['taken', null]);
    expect(await told({ boot: 99 })).toEqual({ revision: 1, settings: ['set 1 start 40.0'] });
    expect((await told({ boot: 99, revision: 1 })).settings).toEqual([]);
    // The same pins and guards, but limits of its own.
    expect((await told({ boot: 100, program: 'abc0de00000a' })).settings).toEqual([]);
    await site.ask('DELETE', AT);
    expect((await told({ boot: 101 })).settings).toEqual([]);
  });
  test('that it refused go out no more, and its words are kept', async () => {
    await site.ask('PUT', AT, LEFT);
    await told();
    const said = [{ text: '# settings 1 refused set 1 start 40.0: above the stop limit', agoS: 0 }];
    expect((await told({ said })).settings).toEqual([]);
    expect(await state()).toEqual(['refused', 'set 1 start 40.0: above the stop limit']);
  });
  test('are not told to a board that runs another program, or none of ours', async () => {
    await site.ask('PUT', AT, LEFT);
    expect((await told({ program: 'ffffff000009' })).settings).toEqual([]);
    const { program: _none, ...none } = report(50);
    const heard = await gateway.intake.hear(
      { gardenId: 'hare', boardId: 'roof', madeMs: NOON, standIn: false, reads: false },
      JSON.stringify(none),
      { kind: 'own' },
    );
    expect(heard).toMatchObject({ answer: { settings: [] } });
    expect(await state()).toEqual(['waiting', null]);
  });
  test('give way to what is left after them, under a later revision', async () => {
    await site.ask('PUT', AT, LEFT);
    await site.ask('PUT', AT, { ...LEFT, lines: ['set 1 start 30.0'] });
    expect(await told()).toEqual({ revision: 2, settings: ['set 1 start 30.0'] });
    // A board that has the first says so: that is not the second.
    expect((await told({ revision: 1 })).settings).toEqual(['set 1 start 30.0']);
  });
  test('can be withdrawn while they wait', async () => {
    await site.ask('PUT', AT, LEFT);
    await site.ask('DELETE', AT);
    expect((await told()).settings).toEqual([]);
    expect(await state()).toEqual(['withdrawn', null]);
  });
  test.each([
    [{ ...LEFT, lines: ['give 1 500'] }],
    [{ ...LEFT, lines: ['set 1 start 40\nload'] }],
    [{ ...LEFT, lines: [] }],
    [{ ...LEFT, lines: [`set 1 table ${'1'.repeat(160)}`] }],
    [{ ...LEFT, frame: '../x' }],
    [{ lines: LEFT.lines }],
  ])('are settings and nothing else: %j', async (body) => {
    expect((await site.ask('PUT', AT, body)).status).toBe(400);
    expect(await state()).toBeNull();
  });
});
