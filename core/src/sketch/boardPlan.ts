/** A board's program, planned from the garden: whole, or a list of what is still missing. */
import { byId } from '../quantity/byId.ts';
import type { Board, Garden } from '../garden/document/schema.ts';
import { headingOf } from './heading.ts';
import { isInput } from './inputs.ts';
import type { BoardPlan, SketchDisplay, SketchLamp, SketchLine, SketchProblem } from './plan.ts';
import { inputsOf } from './plan.ts';
import { drawnAs, networkOf } from './network.ts';
import { pinsOfOutput } from './pins.ts';
import { Planner } from './planner.ts';
import { sleepOf } from './sleep.ts';

export type Planned =
  | { readonly ok: true; readonly plan: BoardPlan }
  | { readonly ok: false; readonly problems: readonly SketchProblem[] };

export function planBoard(garden: Garden, boardId: string): Planned {
  const board = byId(garden.boards, boardId);
  const planner = new Planner(garden, boardId);
  const { engine, inputs, powers, bus, i2c } = planner;
  const own = <T extends { readonly boardId: string }>(all: readonly T[]) =>
    all.filter((one) => one.boardId === boardId);
  const lines = own(garden.waterLines);
  const contacts = own(garden.contacts);
  if (lines.length + contacts.length + inputs.length === 0) {
    // Why what there is cannot be read says more than that nothing is.
    const unread = planner.read.flatMap(({ input }) => (isInput(input) ? [] : [input]));
    if (unread.length > 0) planner.problems.push(...unread);
    else planner.miss('nothing-to-do', board?.name ?? boardId, 'bench/readout');
  }
  const nameOfSensor = (at: number): string =>
    lines.find((_, place) => engine.config.lines[place]?.sensor === at)?.name ??
    contacts.find((_, place) => engine.contacts[place]?.sensor === at)?.name ??
    '';
  const sources = engine.sensors.map((one, at) => planner.source(one, nameOfSensor(at)));
  const tankInputs = engine.tankChannelIds.map((channelId, at) => {
    const what = byId(garden.reservoirs, engine.tankIds[at] ?? '')?.name ?? '';
    return planner.need(channelId, { kind: 'tank-unread', what, sheet: 'bench/dose' });
  });
  const outputs = lines.flatMap((line, at) => planner.line(at, line));
  const around = engine.config.lines.map(({ conditions }, at) =>
    planner.around(engine.around[at], conditions, lines[at]?.name ?? ''),
  );
  const switched = contacts.flatMap((one, at) => {
    const config = engine.contacts[at];
    return config ? planner.contact(at, config, one) : [];
  });
  const { lamps, displays } = planner.lamps();
  const battery = planner.battery();
  const all = [...sources, ...planner.further.map(({ source }) => source)];
  for (const what of takenTwice(planner, [...outputs, ...switched], lamps, displays))
    planner.miss('pin-taken-twice', what, 'plan/wiring');
  if (planner.problems.length > 0 || !board) return { ok: false, problems: onceEach(planner.problems) };
  const network = networkOf(garden, board);
  const { sleep, leftOut: awake } = sleepOf(garden, board.name, {
    network,
    inputs,
    powers,
    bus,
    lines: outputs,
    contacts: switched,
    lamps,
    displays,
  });
  const sensorInputs = all.flatMap(inputsOf).flatMap((at) => inputs[at] ?? []);
  return {
    ok: true,
    plan: {
      network,
      sleep,
      garden: garden.name,
      board: board.name,
      traits: traitsOf(garden, board),
      adcBits: board.adcBits,
      referenceMv: referenceMv(garden, board),
      inputs,
      powers,
      bus,
      i2c,
      lines: outputs,
      contacts: switched,
      watches: planner.watches.map(({ plotId: _, ...watch }) => watch),
      lamps,
      displays,
      signals: lamps.length + displays.length > 0 ? garden.signals.filter((one) => one.on) : [],
      engine: {
        ...engine.config,
        sensors: [...engine.config.sensors, ...planner.further.map(({ config }) => config)],
      },
      sources: all,
      tankInputs,
      senses: planner.senses,
      around,
      battery,
      heading: headingOf(garden, {
        inputs,
        powers,
        sensors: sensorInputs,
        lines: [...outputs, ...switched],
        lamps,
        displays,
        bus,
        sleep,
      }),
      leftOut: [
        ...planner.read.flatMap(({ input }) => (isInput(input) ? [] : [input])),
        ...planner.leftOut,
        ...awake,
      ],
    },
  };
}

/** As the garden has it, and as it is drawn where that says something else: either may tell that it is a small one. */
function traitsOf(garden: Garden, board: Board): string {
  const { name } = drawnAs(garden, board);
  return name === null || name === board.traits ? board.traits : `${board.traits}; drawn as ${name}`;
}

/** What the board's converter compares with, mV: as its entry in the wiring says, else its supply. */
const referenceMv = (garden: Garden, board: Board): number =>
  Math.round((drawnAs(garden, board).facts.adcReferenceV ?? board.supplyV) * 1000);

/** "C2 and Roof pump, both on P35", for every pin that more than one thing is written to. */
function takenTwice(
  { inputs, powers, bus, i2c }: Pick<BoardPlan, 'inputs' | 'powers' | 'bus' | 'i2c'>,
  lines: readonly SketchLine[],
  lamps: readonly SketchLamp[],
  displays: readonly SketchDisplay[],
): readonly string[] {
  const users = [
    ...(bus
      ? [bus.tx, bus.rx, bus.direction].flatMap((pin) => (pin ? [{ label: 'the bus', pin }] : []))
      : []),
    ...[
      ...new Map(
        [...(i2c?.parts ?? []), ...displays]
          .flatMap(({ sda, scl }) => [sda, scl])
          .map((pin) => [pin.number, pin]),
      ),
    ].map(([, pin]) => ({ label: 'I2C', pin })),
    ...lamps.flatMap(({ name, pins }) => pins.map(({ pin }) => ({ label: name, pin }))),
    ...powers.map(({ pin }, at) => ({
      label: `the supply of ${inputs.flatMap(({ power, label }) => (power === at ? [label] : [])).join(', ')}`,
      pin,
    })),
    ...inputs
      .filter(({ reads }) => reads !== 'bus' && reads !== 'i2c' && reads !== 'far')
      .flatMap(({ label, pin, second }) => [{ label, pin }, ...(second ? [{ label, pin: second }] : [])]),
    ...lines.flatMap(({ name, output }) => pinsOfOutput(output).map((pin) => ({ label: name, pin }))),
  ];
  const byPin = new Map<string, string[]>();
  for (const { label, pin } of users) {
    const name = `${pin.kind === 'pin' ? 'P' : 'IN'}${pin.number}`;
    byPin.set(name, [...(byPin.get(name) ?? []), label]);
  }
  return [...byPin].flatMap(([name, labels]) =>
    labels.length > 1
      ? [`${[...new Set(labels)].join(' and ')}, ${labels.length === 2 ? 'both' : 'all'} on ${name}`]
      : [],
  );
}

const onceEach = (problems: readonly SketchProblem[]): SketchProblem[] => [
  ...new Map(problems.map((one) => [`${one.kind} ${one.what}`, one])).values(),
];
