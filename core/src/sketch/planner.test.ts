/** What of a garden can be written into a board's program, and what is named in its place. */
import { describe, expect, test } from 'vitest';
import { addContact, setContact } from '../garden/edits/contacts.ts';
import { catalogueOf, setWiring, standFor } from '../garden/edits/plan.ts';
import { setWaterLine } from '../garden/edits/plots.ts';
import type { Garden } from '../garden/document/schema.ts';
import { addPart, connect } from '../wiring/edit.ts';
import { planBoard } from './boardPlan.ts';
import { boardSleeps } from './boardSleeps.ts';
import { wantedFar } from './far.ts';
import { cppProblems, forCpp, pythonProblems } from './fits.ts';
import { restLevels } from './folder.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import { sleepOf } from './sleep.ts';

const { garden: base, boardId } = oneStickOnePump();
const plotId = base.plots[0]?.id ?? '';

/** Another part on the board, joined with something of the garden and wired by these terminals to pins. */
function withPart(
  garden: Garden,
  entryId: string,
  stands: NonNullable<Garden['wiring']['parts'][number]['stands']>,
  wires: readonly (readonly [terminal: string, pin: string])[],
): Garden {
  const board = garden.wiring.parts.find((one) => one.stands?.list === 'boards');
  const added = addPart(garden.wiring, catalogueOf(garden), { entryId, boardId: board?.id ?? '' });
  const wired = wires.reduce(
    (next, [terminal, pin]) =>
      connect(next, { part: added.id, terminal }, { part: board?.id ?? '', terminal: pin }),
    added.netlist,
  );
  return standFor(setWiring(garden, wired), added.id, stands);
}
/** The pump taken for a servo on pin 6. */
function withServo(settings: object): Garden {
  const line = base.waterLines[0]?.id ?? '';
  const without = {
    ...base,
    wiring: {
      ...base.wiring,
      parts: base.wiring.parts.map((one) =>
        one.stands?.list === 'waterLines' ? { ...one, stands: null } : one,
      ),
    },
  };
  const drawn = withPart(without, 'valve-servo', { list: 'waterLines', id: line }, [['in', 'p6']]);
  const parts = drawn.wiring.parts.map((one) => (one.entryId === 'valve-servo' ? { ...one, settings } : one));
  return { ...drawn, wiring: { ...drawn.wiring, parts } };
}
const problemsOf = (garden: Garden): string[] => {
  const planned = planBoard(garden, boardId);
  return planned.ok ? [] : planned.problems.map(({ kind }) => kind);
};
const planOf = (garden: Garden) => {
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
  return planned.plan;
};

describe('a permit contact', () => {
  const made = addContact(base, plotId, 'permit', () => 0.3);
  const id = made.contacts[0]?.id ?? '';
  const relay = (garden: Garden) =>
    withPart(garden, 'switch-permit', { list: 'contacts', id }, [['in', 'p7']]);

  test('wants a part in the wiring, and is switched by the pin that drives its relay', () => {
    expect(problemsOf(made)).toEqual(['no-output-pin']);
    const { contacts, sources } = planOf(relay(made));
    expect(contacts).toMatchObject([
      { id, output: { pin: { kind: 'pin', number: 7 }, activeLow: false }, config: { sensor: 1 } },
    ]);
    expect(sources).toEqual([
      { by: 'one', input: 0 },
      { by: 'one', input: 0 },
    ]);
  });
  test('that is to permit at rest is refused on a relay that is open at rest: it would do the opposite', () => {
    const turned = setContact(relay(made), id, { rule: { kind: 'permit', atRest: 'permits' } });
    expect(problemsOf(turned)).toEqual(['contact-turned-round']);
  });
});

test('a valve that a servo pinches is turned by pulses, as its part says, straight from its pin', () => {
  const { lines, heading } = planOf(withServo({}));
  expect(lines).toMatchObject([
    { output: { pin: { kind: 'pin', number: 6 }, activeLow: false, pulses: { offUs: 1000, onUs: 2000 } } },
  ]);
  expect(heading.join()).toContain('1000 us shut, 2000 us open; it stays where it is when its supply fails');
  expect(planOf(withServo({ closedUs: 2100, openUs: 900 })).lines[0]?.output.pulses).toEqual({
    offUs: 2100,
    onUs: 900,
  });
});

describe('a latching valve', () => {
  const line = base.waterLines[0]?.id ?? '';
  const without = {
    ...base,
    wiring: {
      ...base.wiring,
      parts: base.wiring.parts.map((one) =>
        one.stands?.list === 'waterLines' ? { ...one, stands: null } : one,
      ),
    },
  };
  const drawn = (...wires: readonly (readonly [string, string])[]) =>
    withPart(without, 'valve-latching', { list: 'waterLines', id: line }, wires);

  test('is opened by one pin and shut by another, and the heading says what it does without supply', () => {
    const plan = planOf(drawn(['open', 'p6'], ['shut', 'p7']));
    expect(plan.lines).toMatchObject([
      { output: { pin: { number: 6 }, activeLow: false, latch: { shut: { number: 7 }, ms: 60 } } },
    ]);
    expect(plan.heading.join()).toContain('by pulses of 60 ms; it stays as it is when its supply fails');
    // Both pins at rest, and a pulse that shuts it, also when another program is put on the board.
    expect(restLevels(plan)).toEqual([
      [6, 0],
      [7, 0],
      [7, 0, 60],
    ]);
  });
  test('that cannot be shut is not written', () => {
    expect(problemsOf(drawn(['open', 'p6']))).toEqual(['no-output-pin']);
    expect(problemsOf(drawn(['open', 'p6'], ['shut', 'p6']))).toContain('pin-taken-twice');
  });
});

test('a ring whose data goes across a level shifter is driven by the pin behind it', () => {
  const ring = withPart(base, 'lamp-ring', { list: 'plots', id: plotId }, []);
  const board = ring.wiring.parts.find((one) => one.stands?.list === 'boards')?.id ?? '';
  const lamp = ring.wiring.parts.find((one) => one.entryId === 'lamp-ring')?.id ?? '';
  const shifter = addPart(ring.wiring, catalogueOf(ring), { entryId: 'level-shifter', boardId: board });
  const wires = [
    [lamp, 'data', shifter.id, 'hv3'],
    [shifter.id, 'lv3', board, 'p9'],
  ] as const;
  const wiring = wires.reduce(
    (all, [from, at, to, end]) => connect(all, { part: from, terminal: at }, { part: to, terminal: end }),
    shifter.netlist,
  );
  expect(planOf(setWiring(ring, wiring)).lamps).toMatchObject([{ pins: [{ pin: { number: 9 } }] }]);
});

describe('a lamp', () => {
  const lit = withPart(base, 'lamp-led', { list: 'plots', id: plotId }, [['anode', 'p9']]);

  test('goes by the probe and the line of its plot', () => {
    const { lamps, watches, signals } = planOf(lit);
    expect(lamps).toMatchObject([
      { kind: 'one', watch: 0, pins: [{ pin: { number: 9 }, activeLow: false }] },
    ]);
    expect(watches).toMatchObject([{ sensor: 0, lines: [0], isBlind: false }]);
    expect(signals.length).toBeGreaterThan(5);
  });
  test('two of one plot go by the same; one that is not drawn to a pin is missed', () => {
    const two = withPart(lit, 'buzzer', { list: 'plots', id: plotId }, [['in', 'p10']]);
    const { lamps, watches } = planOf(two);
    expect(lamps.map(({ kind, watch }) => [kind, watch])).toEqual([
      ['one', 0],
      ['buzzer', 0],
    ]);
    expect(watches).toHaveLength(1);
    expect(problemsOf(withPart(base, 'lamp-led', { list: 'plots', id: plotId }, []))).toEqual([
      'no-output-pin',
    ]);
  });
  test('without a line it has a sensor of its own', () => {
    const { watches, engine, sources } = planOf({ ...lit, waterLines: [] });
    expect(watches).toMatchObject([{ sensor: 0, lines: [] }]);
    expect([engine.sensors.length, sources.length]).toEqual([1, 1]);
    expect(engine.sensors[0]?.table).toEqual(planOf(lit).engine.sensors[0]?.table);
  });
  test('of a plot whose pump hangs on another board is never content', () => {
    const other = {
      ...lit,
      boards: [...lit.boards, { ...(lit.boards[0] as Garden['boards'][number]), id: 'other' }],
    };
    const moved = setWaterLine(other, other.waterLines[0]?.id ?? '', { boardId: 'other' });
    expect(planOf(moved).watches).toMatchObject([{ isBlind: true }]);
  });
  test('a ring of lights has one pin and its number of lights; C++ leaves it out and names it', () => {
    const plan = planOf(withPart(base, 'lamp-ring', { list: 'plots', id: plotId }, [['data', 'p9']]));
    expect(plan.lamps).toMatchObject([{ kind: 'ring', lights: 12, pins: [{ pin: { number: 9 } }] }]);
    expect(plan.heading.join()).toContain('P9: lights Lamp 1');
    const inCpp = forCpp(plan);
    expect(inCpp).toMatchObject({ lamps: [], watches: [], signals: [] });
    expect(inCpp.heading.join()).not.toContain('P9');
    expect(inCpp.leftOut.map(({ kind }) => kind)).toEqual(['ring-in-python']);
  });
  test('a display goes by the words of its plot; without an address or its wires it is missed', () => {
    const drawn = (address: number | null, wires: readonly (readonly [string, string])[]) => {
      const garden = withPart(base, 'display-i2c', { list: 'plots', id: plotId }, wires);
      const parts = garden.wiring.parts.map((one) =>
        one.entryId === 'display-i2c' ? { ...one, address } : one,
      );
      return { ...garden, wiring: { ...garden.wiring, parts } };
    };
    const wires = [
      ['sda', 'in4'],
      ['scl', 'in5'],
    ] as const;
    const { displays, signals, watches } = planOf(drawn(60, wires));
    expect(displays).toMatchObject([
      {
        watch: 0,
        address: 60,
        of: 'dots',
        raw: 0,
        tank: null,
        temperature: null,
        words: ['dry', 'low', 'right', 'wet', 'flooded'],
        edges: base.plots[0]?.bandEdges,
        scale: 'percent',
        unit: '% span',
      },
    ]);
    expect(watches).toHaveLength(1);
    expect(signals.length).toBeGreaterThan(5);
    expect(problemsOf(drawn(null, wires))).toEqual(['no-i2c']);
    expect(problemsOf(drawn(60, [['sda', 'in4']]))).toEqual(['no-i2c']);
  });
  test('that shares its pin with the pump is told', () => {
    const shared = withPart(base, 'lamp-led', { list: 'plots', id: plotId }, [['anode', 'p5']]);
    expect(problemsOf(shared)).toContain('pin-taken-twice');
  });
});

describe('a probe on a bus', () => {
  const plan = planOf(base);
  const [stick] = plan.inputs;
  if (!stick) throw new Error('no input');
  const onBus = {
    ...stick,
    name: 'b1.moisture',
    label: 'B1, factory moisture',
    reads: 'bus',
    register: { probe: 0, word: 0, kind: 'uint16', decimals: 1, times: 1, per: 1, plus: 0 },
  } as const;
  const pin = (number: number) => ({ kind: 'pin', number }) as const;
  const bus = { tx: pin(16), rx: pin(17), direction: null, baud: 9600, probes: [] };

  const fast = { ...plan, traits: '3.3 V board', bus: { ...bus, baud: 38_400 }, inputs: [onBus] };
  test('that is set to more bits a second than a program can time is refused in C++ alone', () => {
    expect(cppProblems({ ...fast, bus: { ...bus, baud: 19_200 } })).toEqual([]);
    expect(cppProblems(fast)).toMatchObject([{ kind: 'bus-too-fast' }]);
    expect(pythonProblems({ ...fast, inputs: [{ ...onBus, pin: pin(16) }] })).toEqual([]);
  });
});

describe('a probe that is fed only to be read', () => {
  /** The stick's supply hangs on this terminal of the board already drawn. */
  const fed = (everyS: number, change: object = {}): Garden => {
    const parts = base.wiring.parts.map((one) =>
      one.stands?.list === 'probes' ? { ...one, perReading: true } : one,
    );
    const board = parts.find((one) => one.stands?.list === 'boards')?.id ?? '';
    const stick = parts.find((one) => one.stands?.list === 'probes')?.id ?? '';
    const wires = base.wiring.wires.filter(
      ({ from, to }) => ![from, to].some((end) => end.part === stick && end.terminal === 'vcc'),
    );
    const wiring = connect(
      { ...base.wiring, parts, wires },
      { part: stick, terminal: 'vcc' },
      { part: board, terminal: 'p8' },
    );
    const plan = { ...base.plan, supply: { ...base.plan.supply, everyS } };
    const garden = setWaterLine(setWiring({ ...base, plan }, wiring), base.waterLines[0]?.id ?? '', change);
    return garden;
  };
  test('is read as often as the plan says, and twice before its line takes it for stale', () => {
    expect(planOf(fed(60, { staleAfterS: 900 })).powers).toEqual([
      { pin: { kind: 'pin', number: 8 }, waitS: 1, everyS: 60 },
    ]);
    expect(planOf(fed(600, { staleAfterS: 120 })).powers).toMatchObject([{ everyS: 60 }]);
  });
  test('without a line it is read before the page, and its lamps, take it for stale', () => {
    expect(planOf({ ...fed(3600), waterLines: [] }).powers).toMatchObject([{ everyS: 450 }]);
  });
  test('whose supply no pin feeds is named', () => {
    const parts = base.wiring.parts.map((one) =>
      one.stands?.list === 'probes' ? { ...one, perReading: true } : one,
    );
    expect(problemsOf({ ...base, wiring: { ...base.wiring, parts } })).toEqual(['no-power-pin']);
  });
});

describe('a board that is to sleep', () => {
  const asleep = (change: Partial<Garden> = {}, everyS = 300, staleAfterS = 3600): Garden => ({
    ...base,
    plan: { ...base.plan, supply: { ...base.plan.supply, sleeps: true, everyS } },
    waterLines: base.waterLines.map((one) => ({ ...one, staleAfterS })),
    ...change,
  });
  const wifi = (garden: Garden) => ({ ...planOf(garden), traits: '3.3 V Wi-Fi board' });
  test('wakes as often as the plan says, and twice within the time after which its lines believe no reading', () => {
    expect(planOf(asleep()).sleep).toEqual({ everyS: 300, awakeS: 4, usualS: 6 });
    // Nothing is believed for longer than a quarter of an hour.
    expect(planOf(asleep({}, 3600)).sleep?.everyS).toBe(450);
    expect(planOf(asleep({}, 300, 400)).sleep?.everyS).toBe(200);
    expect(planOf(base).sleep).toBeNull();
    expect(planOf(asleep()).heading.join('\n')).toContain(
      'it sleeps between readings, 300 s from one waking',
    );
  });
  test('stays awake where a reading is wanted more often than each minute, and says so', () => {
    const plan = planOf(asleep({}, 300, 100));
    expect([plan.sleep, plan.leftOut.map(({ kind }) => kind)]).toEqual([null, ['awake-short']]);
  });
  test('stays awake where something of it would be dark or let go, and names that', () => {
    const plan = planOf(asleep());
    const { sleep, leftOut } = sleepOf(asleep(), 'Roof', {
      ...plan,
      lamps: [{ kind: 'one', name: 'Dry lamp', watch: 0, pins: [] }],
    });
    expect([sleep, leftOut]).toEqual([
      null,
      [{ kind: 'awake-holds', what: 'Roof (Dry lamp)', sheet: 'plan/parts' }],
    ]);
  });
  test('in C++ it stays awake, and that is said', () => {
    const inCpp = forCpp(wifi(asleep()));
    expect([inCpp.sleep, inCpp.leftOut.map(({ kind }) => kind)]).toEqual([null, ['sleep-in-python']]);
  });
  test('the supply is reckoned with what the programs do', () => {
    expect(boardSleeps(base)).toEqual([]);
    expect(boardSleeps(asleep())).toEqual([
      { name: base.boards[0]?.name, partId: 'uno', sleep: { everyS: 300, awakeS: 4, usualS: 6 }, why: [] },
    ]);
    expect(boardSleeps(asleep({}, 300, 100))[0]?.why.map(({ kind }) => kind)).toEqual(['awake-short']);
  });
});

test('a condition on something that nobody measures here stands against the line before the program does', () => {
  const line = base.waterLines[0];
  if (!line) throw new Error('no line');
  const cold = setWaterLine(base, line.id, {
    conditions: { ...line.conditions, soilAboveC: 5 },
  });
  expect(problemsOf(cold)).toContain('contradiction');
});

test('a board that reads nothing says why each of its probes cannot be read, and else that it has none', () => {
  const { waterLines: _, ...rest } = base;
  const alone = { ...rest, waterLines: [] };
  const nowhere = { ...alone, channels: alone.channels.map((one) => ({ ...one, pin: '' })) };
  expect(problemsOf(nowhere)).toEqual(['no-input-pin']);
  const onBus = {
    ...nowhere,
    probes: nowhere.probes.map((one) => ({ ...one, kind: 'steel-rod bus probe' as const })),
    channels: nowhere.channels.map((one) => ({ ...one, quantity: 'factory moisture' as const })),
  };
  expect(problemsOf(onBus)).toEqual(['bus-unknown']);
  expect(problemsOf({ ...alone, channels: [], probes: [] })).toEqual(['nothing-to-do']);
});

describe('a board over the network', () => {
  /** The board drawn with a radio or without, and its link chosen. */
  const linked = (link: 'link-http' | 'link-mqtt' | 'link-serial', hasRadio: 0 | 1): Garden => ({
    ...base,
    plan: { ...base.plan, choices: { ...base.plan.choices, link: { candidate: link, reason: '' } } },
    wiring: {
      ...base.wiring,
      parts: base.wiring.parts.map((one) =>
        one.stands?.list === 'boards' ? { ...one, settings: { ...one.settings, hasRadio } } : one,
      ),
    },
  });
  const planned = (garden: Garden) => {
    const made = planBoard(garden, boardId);
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    return made.plan;
  };
  test('reports where the plan says so and it has a radio', () => {
    const names = { gardenId: base.id, boardId, everyS: 10 };
    expect(planned(linked('link-http', 1)).network).toEqual({ over: 'http', ...names });
    expect(planned(linked('link-mqtt', 1)).network).toEqual({ over: 'mqtt', ...names });
    expect(planned(linked('link-mqtt', 0)).network).toBeNull();
    expect(planned(linked('link-http', 0)).network).toBeNull();
    expect(planned(linked('link-serial', 1)).network).toBeNull();
    expect(planned(base).network).toBeNull();
    // Nobody has chosen, but somebody has said that Wi-Fi is good: what leads the ranking holds.
    const { plan } = linked('link-http', 1);
    const ranked = { ...plan, choices: { ...plan.choices, link: null } };
    const said = { ...ranked.answers, wifi: 'good', wants: 'number' } as const;
    expect(planned({ ...linked('link-http', 1), plan: ranked }).network).toBeNull();
    expect(planned({ ...linked('link-http', 1), plan: { ...ranked, answers: said } }).network).not.toBeNull();
  });
  test('in C++ as well, but on an 8-bit board and where pulses hold a servo: there it speaks over its serial line alone, and that is said', () => {
    const kinds = ({ leftOut }: ReturnType<typeof planned>) => leftOut.map(({ kind }) => kind);
    const small = forCpp(planned(linked('link-http', 1)));
    expect([small.network, kinds(small)]).toEqual([null, ['network-in-python']]);
    const whole = { ...planned(linked('link-http', 1)), traits: '3.3 V Wi-Fi board' };
    expect([forCpp(whole).network, kinds(forCpp(whole))]).toEqual([whole.network, []]);
    const pinched = forCpp({
      ...whole,
      lines: whole.lines.map((one) => ({
        ...one,
        output: { ...one.output, pulses: { offUs: 1000, onUs: 2000 } },
      })),
    });
    expect([pinched.network, kinds(pinched)]).toEqual([null, ['network-in-python']]);
  });
  /** The stick is read by a shed board, with the pump where it was. */
  function farFrom(garden: Garden): Garden {
    const [board] = garden.boards;
    if (!board) throw new Error('no board');
    return {
      ...garden,
      boards: [...garden.boards, { ...board, id: 'shed', name: 'Shed board' }],
      channels: garden.channels.map((one) => ({ ...one, boardId: 'shed' })),
      calibrations: garden.calibrations.map((one) => ({ ...one, place: { ...one.place, boardId: 'shed' } })),
    };
  }
  const problems = (garden: Garden) => {
    const made = planBoard(garden, boardId);
    return made.ok ? [] : made.problems.map(({ kind }) => kind);
  };
  test('goes by a probe at another board: what that reads comes through the gateway', () => {
    const plan = planned(farFrom(linked('link-http', 1)));
    const id = base.channels[0]?.id ?? '';
    expect(plan.inputs).toEqual([
      {
        channelId: id,
        name: id,
        label: 'C2',
        reads: 'far',
        pin: { kind: 'pin', number: 0 },
        far: { board: 'Shed board', decimals: 0 },
      },
    ]);
    expect(wantedFar(plan.inputs)).toEqual([id]);
    // The engine goes by it as by a probe of its own.
    expect(plan.engine.sensors).toEqual(planned(linked('link-http', 1)).engine.sensors);
    expect(plan.heading).toContain('no pin: C2 is read by Shed board; the gateway tells it');
    const inCpp = (traits: string) => cppProblems(forCpp({ ...plan, traits })).map(({ kind }) => kind);
    expect(inCpp('3.3 V Wi-Fi board')).toEqual([]);
    expect(inCpp('8-bit board')).toContain('far-in-python');
    // No pin is taken by it, so pin 0 is free for something else.
    expect(plan.powers).toEqual([]);
  });
  test('without a network nobody could tell it: refused', () => {
    expect(problems(farFrom(base))).toEqual(['other-board']);
    expect(problems(farFrom(linked('link-serial', 1)))).toEqual(['other-board']);
  });
});
