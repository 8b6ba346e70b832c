/** Contacts that hold a state: what they do by the hour, by the cell, by the probe, and what no setting moves. */
import { describe, expect, test } from 'vitest';
import { configOf, NO_CONDITIONS, rawOf, SENSOR } from '../engine/engineForTests.ts';
import type { SensorState } from '../contract/types.ts';
import type { Conditions } from '../conditions/conditions.ts';
import { bootContacts, rememberedContacts, stepContacts } from './contacts.ts';
import type {
  ContactConfig,
  ContactEvent,
  ContactGuards,
  ContactsInput,
  ContactsState,
  LightRule,
} from './contract.ts';

const HOUR = 3600;
const GUARDS: ContactGuards = { mostOnS: 100 * HOUR, leastOffS: 60, dayMaxS: 100 * HOUR };
const LIGHT: LightRule = {
  kind: 'light',
  from: { by: 'clock', s: 6 * HOUR },
  to: { by: 'clock', s: 20 * HOUR },
  cell: null,
};
const contact = (change: Partial<ContactConfig> = {}): ContactConfig => ({
  enabled: true,
  contradicts: false,
  sensor: 0,
  rule: LIGHT,
  conditions: NO_CONDITIONS,
  guards: GUARDS,
  ...change,
});
const permit = (restPermits = false, change: Partial<ContactConfig> = {}): ContactConfig =>
  contact({ rule: { kind: 'permit', startTenths: 300, stopTenths: 600, restPermits }, ...change });

const NOWHERE = { airTenthsC: null, light: null, rain: null, soilTenthsC: null, skip: null };

/** To a tenth of an hour. */
const tellOf = ({ atS, kind, reason }: ContactEvent) =>
  `${Math.round((10 * atS) / HOUR) / 10} ${kind} ${reason}`;

type Told = {
  readonly tenths?: number | null;
  readonly around?: Partial<(typeof NOWHERE & { light: number | null }) | Record<string, unknown>>;
  readonly sun?: ContactsInput['sun'];
  readonly hasClock?: boolean;
};

/** Called each minute of some hours; the day begins at its midnight. The probe is read each time unless it is null. */
function hours(
  config: ContactConfig,
  from: number,
  to: number,
  tell: (hour: number) => Told = () => ({}),
  begun: ContactsState = bootContacts([config], [], from * HOUR),
  everyS = 60,
) {
  let state = begun;
  const events: ContactEvent[] = [];
  let driven = false;
  let sensor: SensorState | null = null;
  for (let nowS = from * HOUR; nowS <= to * HOUR; nowS += everyS) {
    const { tenths = 450, around = {}, sun = null, hasClock = true } = tell(nowS / HOUR);
    if (tenths !== null) sensor = { raw: rawOf(tenths), atS: nowS, unsettled: false, tenths, leapS: null };
    const input: ContactsInput = {
      nowS,
      clock: hasClock ? { daySecond: nowS % 86_400, weekday: 0 } : null,
      batteryMv: 12_600,
      around: [{ ...NOWHERE, ...around }],
      sun,
    };
    const engine = configOf({}, { sensors: [{ ...SENSOR, staleAfterS: 600 }] });
    const step = stepContacts(state, input, [sensor], engine, [config]);
    state = step.state;
    driven = step.driven[0] === true;
    events.push(...step.events);
  }
  return {
    state,
    driven,
    contact: state.contacts[0],
    told: events.map((one) => tellOf(one)),
  };
}

describe('a grow light', () => {
  test('is lit between its hours, each day', () => {
    expect(hours(contact(), 0, 31).told).toEqual(['6 on in-hours', '20 off outside-hours', '30 on in-hours']);
  });
  test('is dark without a clock, and while it is switched off or contradicts itself', () => {
    expect(hours(contact(), 0, 12, () => ({ hasClock: false })).contact).toMatchObject({
      isOn: false,
      reason: 'clock-unknown',
    });
    expect(hours(contact({ enabled: false }), 0, 12).contact).toMatchObject({
      isOn: false,
      reason: 'switched-off',
    });
    expect(hours(contact({ contradicts: true }), 0, 12).contact).toMatchObject({
      isOn: false,
      reason: 'contradiction',
    });
  });
  test('goes by the sun, before and after it', () => {
    const rule: LightRule = { ...LIGHT, from: { by: 'sunset', s: -HOUR }, to: { by: 'clock', s: 21 * HOUR } };
    const sun = { riseS: 8 * HOUR, setS: 16 * HOUR };
    expect(hours(contact({ rule }), 0, 24, () => ({ sun })).told).toEqual([
      '15 on in-hours',
      '21 off outside-hours',
    ]);
    expect(hours(contact({ rule }), 0, 24).contact).toMatchObject({
      isOn: false,
      isResting: true,
      reason: 'sun-unknown',
    });
  });
  test('stays dark on a day on which its hours would turn round: the sun sets after it is to go out', () => {
    const rule: LightRule = { ...LIGHT, from: { by: 'sunset', s: 0 }, to: { by: 'clock', s: 21 * HOUR } };
    const guards = { ...GUARDS, mostOnS: 16 * HOUR };
    const sun = { riseS: 4 * HOUR, setS: 21.5 * HOUR };
    expect(hours(contact({ rule, guards }), 0, 24, () => ({ sun })).told).toEqual([]);
  });
  test('with a cell: from dark to bright, and between the two as it was', () => {
    const rule: LightRule = { ...LIGHT, cell: { darkBelow: 200, brightAbove: 600 } };
    // Bright in the morning; a cloud at ten; the lamp itself lifts the cell to 400; sun again at noon.
    const light = (hour: number) =>
      hour < 8 ? 400 : hour < 10 ? 800 : hour < 10.5 ? 150 : hour < 12 ? 400 : 700;
    expect(hours(contact({ rule }), 0, 14, (hour) => ({ around: { light: light(hour) } })).told).toEqual([
      '10 on dark',
      '12 off not-dark',
    ]);
  });
  test('a cell that nobody hears leaves it dark', () => {
    const rule: LightRule = { ...LIGHT, cell: { darkBelow: 200, brightAbove: 600 } };
    const heard = (hour: number) => ({ around: { light: hour < 10 ? 100 : null } });
    expect(hours(contact({ rule }), 0, 14, heard).told).toEqual(['6 on dark', '10 off light-unknown']);
  });
  test('no longer at a stretch and in a day than it may, whatever its hours', () => {
    const long = contact({ guards: { mostOnS: 4 * HOUR, leastOffS: HOUR, dayMaxS: 9 * HOUR } });
    expect(hours(long, 0, 24).told).toEqual([
      '6 on in-hours',
      '10 off max-on',
      '11 on in-hours',
      '15 off max-on',
      '16 on in-hours',
      '17 off day-max-on',
    ]);
  });
  test('a reboot begins no new day, and waits for the time that it must be off', () => {
    const guards = { mostOnS: 20 * HOUR, leastOffS: HOUR, dayMaxS: 9 * HOUR };
    const before = hours(contact({ guards }), 0, 12);
    const again = bootContacts([contact({ guards })], rememberedContacts(before.state), 12 * HOUR);
    // Six hours were had; the hour under way counts whole.
    expect(hours(contact({ guards }), 12, 20, undefined, again).told).toEqual([
      '13 on in-hours',
      '15 off day-max-on',
    ]);
    const damaged = bootContacts([contact({ guards })], [['x'] as unknown as number[]], 12 * HOUR);
    expect(hours(contact({ guards }), 12, 20, undefined, damaged).told).toEqual([]);
  });
});

describe('a permit contact', () => {
  const soil = (hour: number) => ({
    tenths: hour < 2 ? 450 : hour < 4 ? 250 : hour < 8 ? 450 : hour < 12 ? 610 : 450,
  });
  test('permits below the start limit until the stop limit, and forbids until the start limit is passed again', () => {
    const run = hours(permit(), 0, 24, soil);
    expect(run.told).toEqual(['2 on below-start', '8 off above-stop']);
    expect(run.contact).toMatchObject({ isOn: false, isResting: false, reason: 'not-below-start' });
  });
  test.each([
    // Wired open at rest: current lets the timer water. Wired closed at rest: current forbids it.
    ['forbids at rest', false, { dry: true, wet: false, unknown: false }],
    ['permits at rest', true, { dry: false, wet: true, unknown: false }],
  ])('%s: the coil is driven only to do other than that', (_, restPermits, driven) => {
    expect(hours(permit(restPermits), 0, 1, () => ({ tenths: 200 })).driven).toBe(driven.dry);
    expect(hours(permit(restPermits), 0, 1, () => ({ tenths: 700 })).driven).toBe(driven.wet);
    expect(hours(permit(restPermits), 0, 1, () => ({ tenths: null })).driven).toBe(driven.unknown);
  });
  test.each([false, true])('a probe that falls silent puts it at rest (permits: %s)', (restPermits) => {
    const run = hours(permit(restPermits), 0, 6, (hour) => ({
      tenths: hour < 1 ? 700 : hour < 2 ? 250 : null,
    }));
    expect(run.contact).toMatchObject({ isOn: restPermits, isResting: true, reason: 'stale' });
    expect(run.driven).toBe(false);
  });
  test('between the limits nothing that was forbidden is let through by a reboot', () => {
    const before = hours(permit(), 0, 3, (hour) => ({ tenths: hour < 1 ? 650 : 450 }));
    expect(before.contact?.isOn).toBe(false);
    expect(hours(permit(), 3, 5, undefined, bootContacts([permit()], [], 3 * HOUR)).contact?.isOn).toBe(
      false,
    );
  });
  const rainy: Conditions = { ...NO_CONDITIONS, noRain: true, noSkip: true };
  test('rain and the skip switch forbid; where neither is heard it is at rest', () => {
    const at = (around: Told['around']) =>
      hours(permit(true, { conditions: rainy }), 0, 1, () => ({ tenths: 200, ...(around ? { around } : {}) }))
        .contact;
    expect(at({ rain: false, skip: false })).toMatchObject({ isOn: true, isResting: false });
    expect(at({ rain: true, skip: false })).toMatchObject({ isOn: false, reason: 'rain' });
    expect(at({ rain: false, skip: true })).toMatchObject({ isOn: false, reason: 'skip-switch' });
    expect(at({ rain: false })).toMatchObject({ isOn: true, isResting: true, reason: 'skip-unknown' });
  });
  test('a leap to dry, as of a plug that is pulled, permits nothing until it has settled', () => {
    const config = permit();
    const sensor: SensorState = { raw: rawOf(100), atS: 7000, unsettled: false, tenths: 100, leapS: 7000 };
    const at = (nowS: number) =>
      stepContacts(
        bootContacts([config], [], 0),
        { nowS, clock: null, batteryMv: null, around: [NOWHERE], sun: null },
        [{ ...sensor, atS: nowS }],
        configOf(),
        [config],
      ).state.contacts[0];
    expect(at(7100)).toMatchObject({ isOn: false, reason: 'unsettled' });
    expect(at(7600)).toMatchObject({ isOn: true });
  });
});

test('a clock that goes back puts everything at rest, with what the day has had', () => {
  const guards = { ...GUARDS, dayMaxS: 9 * HOUR };
  const before = hours(contact({ guards }), 0, 12);
  const step = stepContacts(
    before.state,
    { nowS: 100, clock: null, batteryMv: null, around: [NOWHERE], sun: null },
    [],
    configOf(),
    [contact({ guards })],
  );
  expect(step.driven).toEqual([false]);
  expect(step.events).toMatchObject([{ kind: 'off', reason: 'clock-went-back', onS: 6 * HOUR }]);
  expect(step.state.contacts[0]?.day.sumMl).toBeGreaterThanOrEqual(6 * HOUR);
});

test('settings that cannot be gone by leave it at rest', () => {
  const bad = contact({ guards: { ...GUARDS, mostOnS: Number.NaN } });
  expect(hours(bad, 0, 12).contact).toMatchObject({ isOn: false, reason: 'unsound-settings' });
});

test('what rests on the times does not change with the number of calls', () => {
  const config = contact({ guards: { mostOnS: 4 * HOUR, leastOffS: HOUR, dayMaxS: 9 * HOUR } });
  // Called only when it asked to be.
  let state = bootContacts([config], [], 0);
  const events: string[] = [];
  for (let nowS = 0; nowS <= 24 * HOUR;) {
    const step = stepContacts(
      state,
      {
        nowS,
        clock: { daySecond: nowS % 86_400, weekday: 0 },
        batteryMv: null,
        around: [NOWHERE],
        sun: null,
      },
      [null],
      configOf(),
      [config],
    );
    state = step.state;
    events.push(...step.events.map((one) => tellOf(one)));
    nowS = step.callAgainAtS ?? Infinity;
  }
  expect(events).toEqual(hours(config, 0, 24, undefined, undefined, 1).told);
});
