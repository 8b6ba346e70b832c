/** Whether a board can hold its program, as far as its traits tell. */
import type { BoardPlan, Reads, SketchProblem } from './plan.ts';
import { flatProgram } from './flatProgram.ts';

/** Working memory of the small boards, bytes, and what their own serial line, clock and stack take of it. Its words lie in program memory. */
const SMALL_BOARD_BYTES = 2048;
const OF_THE_BOARD_BYTES = 440;

export const isSmall = ({ traits }: BoardPlan): boolean => /\b8-bit\b/i.test(traits);

/**
 * Working memory that the program in C++ takes, bytes: the sizes of its structures without gaps, as an 8-bit compiler lays them out, with the copies that a step
 * and a start make on the stack.
 */
export function ramBytes(plan: BoardPlan): number {
  const { engine, inputs, lines, contacts, senses, sources } = plan;
  const [s, t, l] = [engine.sensors.length, engine.tanks.length, engine.lines.length].map((count) =>
    Math.max(1, count),
  ) as [number, number, number];
  const slots = Math.max(1, ...engine.lines.map(({ program }) => flatProgram(program).slots.length));
  const config = 16 + 96 * s + 17 * t + l * (123 + 8 * slots);
  const state = 4 + 18 * s + 9 * t + l * (180 + 4 * slots);
  const input = 38 + 10 * s + 10 * t + 20 * l;
  const answer = 9 + l + 15 * (4 * l + 4);
  const kept = 113 * l;
  const switched = CONTACT_RAM_BYTES * contacts.length;
  const members = sources.reduce((sum, one) => sum + (one.by === 'one' ? 0 : one.members.length), 0);
  const about = 20 * l + 4 * senses.length + 3 * sources.length + 12 * members;
  const lamps = WATCH_BYTES * plan.watches.length + LAMP_BYTES * plan.lamps.length + 4 * plan.signals.length;
  const onBus =
    (plan.bus ? 12 + 6 * plan.bus.probes.length + 4 * inputs.length : 0) +
    (plan.i2c ? 42 * plan.i2c.asks.length : 0);
  const names =
    [...inputs, ...lines, ...contacts].reduce((sum, { name }) => sum + name.length + 6, 0) +
    6 * inputs.length;
  return (
    config + state + 2 * input + answer + kept + switched + about + lamps + onBus + names + OF_THE_BOARD_BYTES
  );
}

/** What a plot's lamps go by and how they stand; pins and name of one. */
const WATCH_BYTES = 64;
const LAMP_BYTES = 24;

/** Settings, state, what is told and answered, and what is kept of a contact while it is read at the start. */
const CONTACT_RAM_BYTES = 360;

/** Program memory of the small boards that a sketch may fill, bytes: 32 768 less the 2 048 that the start program of many of them takes. */
const SMALL_BOARD_PROGRAM_BYTES = 30_720;
/**
 * Measured with a compiler for such boards, optimised for size: reading and printing alone, the engine with one line and one kind of program, contacts beside a
 * line and alone, what each more adds, and what the board's own serial line and clock take.
 */
const READING_BYTES = 11_800;
const ONE_LINE_BYTES = 27_200;
const FURTHER_LINE_BYTES = 1220;
const FURTHER_KIND_BYTES = 130;
const CONTACT_BYTES = { alone: 8200, besideLine: 5400, further: 500 };
/** The first further one keeps the compiler from working with one alone. */
const SECOND_INPUT_BYTES = 450;
const FURTHER_INPUT_BYTES = 40;
const READS_BYTES: Readonly<Record<Reads, number>> = {
  analog: 0,
  digital: 0,
  distance: 500,
  'one-wire': 1400,
  volts: 900,
  bus: 1500,
  i2c: 2000,
  far: 0,
};
const SENSES_BYTES = 900;
const MEMBERS_BYTES = 700;
const POWERS_BYTES = 400;
const LAMPS_BYTES = 2400;
const CORE_BYTES = 2600;

/** Program memory that the program in C++ takes on a small board, bytes, about. */
export function programBytes(plan: BoardPlan): number {
  const { engine, inputs, lines, contacts, senses, sources } = plan;
  const kinds = new Set(engine.lines.map(({ program }) => program.kind)).size;
  const reads = [...new Set(inputs.map((one) => one.reads))];
  return (
    CORE_BYTES +
    (lines.length > 0 ? ONE_LINE_BYTES : READING_BYTES) +
    FURTHER_LINE_BYTES * Math.max(0, lines.length - 1) +
    FURTHER_KIND_BYTES * Math.max(0, kinds - 1) +
    (contacts.length === 0 ? 0 : lines.length > 0 ? CONTACT_BYTES.besideLine : CONTACT_BYTES.alone) +
    CONTACT_BYTES.further * Math.max(0, contacts.length - 1) +
    (inputs.length > 1 ? SECOND_INPUT_BYTES : 0) +
    FURTHER_INPUT_BYTES * Math.max(0, inputs.length - 2) +
    reads.reduce((sum, one) => sum + READS_BYTES[one], 0) +
    (senses.length > 0 ? SENSES_BYTES : 0) +
    (sources.some((one) => one.by !== 'one') ? MEMBERS_BYTES : 0) +
    (plan.powers.length > 0 ? POWERS_BYTES : 0) +
    (plan.lamps.length > 0 ? LAMPS_BYTES : 0)
  );
}

/** Small boards reckon volumes with 32 bits: a rolling day of 25 hours stays far below that, with these, ml and ml a minute. */
const MOST_SMALL = 1_000_000;
const isBeyondSmall = ({ engine }: BoardPlan): boolean =>
  engine.lines.some(
    ({ guards, flowMlPerMin }) => guards.dailyMaxMl > MOST_SMALL || flowMlPerMin > MOST_SMALL,
  );

/** Connecting holds a board up, and what waits for an answer takes some 20 kB. */
const canReport = (plan: BoardPlan): boolean =>
  !isSmall(plan) && ![...plan.lines, ...plan.contacts].some(({ output }) => output.pulses);

/** What the program in C++ leaves out: rings of lights, which want pulses that only a board's own timer gives, on 8-bit boards displays, for whose letters they have no room, sleep, which each maker's boards are told in their own way, and the network on 8-bit boards, which have no room for it, and where servos are held: connecting stops their pulses for seconds. */
export function forCpp(plan: BoardPlan): BoardPlan {
  const rings = plan.lamps.filter(({ kind }) => kind === 'ring');
  const lamps = plan.lamps.filter(({ kind }) => kind !== 'ring');
  const dark = isSmall(plan) ? plan.displays : [];
  const displays = isSmall(plan) ? [] : plan.displays;
  const leftOut: readonly SketchProblem[] = [
    ...rings.map(({ name }) => ({ kind: 'ring-in-python', what: name, sheet: 'plan/wiring' }) as const),
    ...dark.map(({ name }) => ({ kind: 'display-in-python', what: name, sheet: 'plan/wiring' }) as const),
    ...(plan.sleep
      ? [{ kind: 'sleep-in-python', what: plan.board, sheet: 'plan/parts' } satisfies SketchProblem]
      : []),
    ...(plan.network && !canReport(plan)
      ? [{ kind: 'network-in-python', what: plan.board, sheet: 'plan/parts' } satisfies SketchProblem]
      : []),
  ];
  if (leftOut.length === 0) return plan;
  const none = lamps.length + displays.length === 0 ? { watches: [], signals: [] } : {};
  const isOfShown = (one: string): boolean =>
    [...rings, ...dark].some(
      ({ name }) => one.endsWith(`: lights ${name}`) || one.endsWith(`: writes on ${name}`),
    );
  const heading = plan.heading.filter((one) => !isOfShown(one));
  return {
    ...plan,
    ...none,
    sleep: null,
    network: canReport(plan) ? plan.network : null,
    heading,
    lamps,
    displays,
    leftOut: [...plan.leftOut, ...leftOut],
  };
}

/** Bits a second that pins can be timed for by a program. */
const MOST_TIMED_BAUD = 19_200;
const busProblems = ({ bus, board }: BoardPlan): readonly SketchProblem[] =>
  bus && bus.baud > MOST_TIMED_BAUD ? [{ kind: 'bus-too-fast', what: board, sheet: 'bench/readout' }] : [];

/** What forbids a program in C++: a board's own size, a bus that is too fast for it, and probes at other boards where it leaves the network out. */
export const cppProblems = (plan: BoardPlan): readonly SketchProblem[] => [
  ...busProblems(plan),
  ...plan.inputs.flatMap(({ far, label }): SketchProblem[] =>
    far && plan.network === null ? [{ kind: 'far-in-python', what: label, sheet: 'bench/readout' }] : [],
  ),
  ...(isSmall(plan) &&
  (ramBytes(plan) > SMALL_BOARD_BYTES ||
    programBytes(plan) > SMALL_BOARD_PROGRAM_BYTES ||
    isBeyondSmall(plan))
    ? [{ kind: 'too-large', what: plan.board, sheet: 'plan/parts' } as const]
    : []),
];

/** What forbids a program in MicroPython: a board that is too small for the language, and inputs that only C++ has a name for. */
export const pythonProblems = (plan: BoardPlan): readonly SketchProblem[] =>
  isSmall(plan)
    ? [{ kind: 'no-python', what: plan.board, sheet: 'plan/parts' }]
    : plan.inputs.flatMap(({ pin, second, label }): SketchProblem[] =>
        pin.kind === 'input' || second?.kind === 'input'
          ? [{ kind: 'no-input-pin', what: label, sheet: 'bench/readout' }]
          : [],
      );
