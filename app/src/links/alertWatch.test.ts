import { expect, test } from 'vitest';
import type { Heard } from '@plain-trowel/core/garden/bind/plotFacts';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { AlertWatch } from '@plain-trowel/core/live/alertWatch';

const T0 = Date.UTC(2026, 4, 1, 9);
const garden = marigoldHare(T0);
const MINUTE = 60_000;

/** The mint's plug is out, the tank low, everything else as it should be. */
const heard = (minute: number, tankMm = 370): Heard => {
  const nowMs = T0 + minute * MINUTE;
  const values: Record<string, number> = { 'channel-m1': 1023, 'channel-c2': 2000, 'channel-tank': tankMm };
  return {
    nowMs,
    newest: (id) => (values[id] === undefined ? null : { raw: values[id], timeMs: nowMs }),
    isLocked: () => false,
  };
};

test('alerts are raised after their hold-off, written down by name, and cleared', () => {
  const watch = new AlertWatch({});
  expect(watch.step(garden, heard(0), true)).toEqual([]);
  // The tank's hold-off is five minutes, the probe's thirty.
  expect(watch.step(garden, heard(5), true)).toMatchObject([
    {
      kind: 'alert',
      atMs: T0 + 5 * MINUTE,
      plotId: null,
      simulated: true,
      alert: 'tank-low',
      phase: 'raised',
      subject: 'Rain tank',
    },
  ]);
  expect(watch.step(garden, heard(30), false)).toMatchObject([
    { alert: 'probe-fault', subject: 'Mint trough', plotId: 'mint', simulated: false },
  ]);
  expect(watch.active(garden).map((one) => one.subject)).toEqual(['Mint trough', 'Rain tank']);
  expect(watch.step(garden, heard(31, 100), true)).toMatchObject([{ alert: 'tank-low', phase: 'cleared' }]);
  expect(watch.active(garden).map((one) => one.kind)).toEqual(['probe-fault']);
});

test('what was seen or put off is kept from visit to visit, and what a person did is an event', () => {
  const watch = new AlertWatch({});
  watch.step(garden, heard(0), true);
  watch.step(garden, heard(30), true);
  watch.acknowledge('tank-low tank');
  watch.snooze('probe-fault mint', T0 + 300 * MINUTE);
  expect(watch.eventOf(garden, 'tank-low tank', 'acknowledged', T0, true)).toMatchObject({
    phase: 'acknowledged',
    subject: 'Rain tank',
  });
  expect(watch.eventOf(garden, 'wet mint', 'snoozed', T0, true)).toBeNull();
  const next = new AlertWatch(JSON.parse(JSON.stringify(watch.memory())) as ReturnType<typeof watch.memory>);
  expect(next.active(garden)).toMatchObject([
    { kind: 'probe-fault', snoozedUntilMs: T0 + 300 * MINUTE },
    { kind: 'tank-low', acknowledged: true },
  ]);
  // A day later the probe is told again, after its snooze; the tank, which was seen, is not.
  const told = next.step(garden, heard(24 * 60 + 60), true);
  expect(told.map((one) => one.kind === 'alert' && one.alert)).toEqual(['probe-fault']);
});

test('what has begun and was not told yet is there to be seen, with when it will be told', () => {
  const watch = new AlertWatch({});
  watch.step(garden, heard(0), true);
  expect(watch.pending(garden).map((one) => [one.kind, (one.tellsMs - T0) / MINUTE])).toEqual([
    ['tank-low', 5],
    ['probe-fault', 30],
  ]);
  watch.step(garden, heard(5), true);
  expect(watch.pending(garden).map((one) => one.kind)).toEqual(['probe-fault']);
});
