/** Why something stands in no board's program, and what would change that. */
import { listed } from './programText.ts';
import type { BoardPlan, SketchProblem } from '@plain-trowel/core/sketch/plan';
import { keptPlaces, recordsADay, wearYears } from '@plain-trowel/core/sketch/wear';

/** No default: a new kind fails to compile here until it has words. */
export function problemText({ kind, what, pins }: SketchProblem): string {
  switch (kind) {
    case 'nothing-to-do':
      return `${what} reads nothing and waters nothing yet. Give a plot a probe on it.`;
    case 'no-input-pin':
      return `${what}: which ${pins === 2 ? 'two pins it is wired to are' : 'pin it is wired to is'} not known.`;
    case 'no-name':
      return `${what} has no name that a line can carry: letters, digits, points and hyphens, a letter first.`;
    case 'no-power-pin':
      return `${what} is powered only to be read, and no pin of the board feeds it. Draw that on Plan, Wiring, or let it be powered all the time.`;
    case 'no-bus':
      return `${what}: its bus is not drawn up to the board’s pins, or its register’s scale is no decimal that the program can reckon with (its own percent: 10, 1, 0.1 or 0.01; else up to three decimals). Draw the transceiver on Plan, Wiring.`;
    case 'bus-too-fast':
      return `The bus of ${what} is set to more than 19 200 bits a second, which the program in C++ cannot time. Set its probes to 9 600, or take MicroPython.`;
    case 'bus-unknown':
      return `${what}: its address on the bus and its registers are not known. Find it on Bench, Readout, Bus desk, and take it into the garden from there.`;
    case 'bus-speeds':
      return `${what} is set to another speed than the probes that it shares its wires with; one of them is never heard. Set all of them to one speed, and say which on Bench, Readout, Bus desk.`;
    case 'bus-fed':
      return `${what} is on a bus and powered only to be read: the program does not wait for such a probe. Let it be powered all the time.`;
    case 'no-i2c':
      return `${what}: its SDA and SCL are not drawn up to pins of the board, straight or across a level shifter. Draw them on Plan, Wiring.`;
    case 'no-address':
      return `${what} has no I2C address yet. Set it on Plan, Wiring, as its jumpers or its sheet say.`;
    case 'not-told':
      return `${what} speaks I2C, and its entry in the catalogue does not say by which bytes this is asked. Take the built-in entry of its kind, or give your own entry an “i2c” in its file.`;
    case 'pin-taken-twice':
      return `${what}: one pin cannot serve two. Give one of them another.`;
    case 'kind-not-written':
      return `${what} gives a number that no pin gives: the program does not read a sensor of this kind yet.`;
    case 'no-output-pin':
      return `${what}: which pin switches it is not drawn. Draw it on Plan, Wiring, and say there, in the part’s “Of the garden”, what it is.`;
    case 'own-numbers':
      return `${what} prints numbers of its own instead of counts: the program decides by no such probe yet.`;
    case 'contact-turned-round':
      return `${what} is set to let the timer water at rest, and its relay, as drawn, is open at rest: the program would do the opposite of what is set. Set it to forbid at rest; relays that are closed at rest are not drawn here yet.`;
    case 'lamp-not-written':
      return `${what} is a lamp of a kind that the program does not speak to.`;
    case 'ring-in-python':
      return `${what} is lit in MicroPython alone: a ring of lights wants pulses of less than a millionth of a second, which C++ in the common style cannot time without a library of the board’s maker.`;
    case 'display-in-python':
      return `${what} is left dark: an 8-bit board has no room for its letters. Take a larger board, or lamps.`;
    case 'network-in-python':
      return `${what} reports over the network in MicroPython alone: in C++ an 8-bit board has no room for it, and connecting would stop the pulses that hold servos, for seconds.`;
    case 'sleep-in-python':
      return `${what} is to sleep between readings: in C++ each maker’s boards are told that in their own way, so the program stays awake. Take MicroPython, or reckon the supply without sleep.`;
    case 'awake-holds':
      return `${what} is to sleep between readings, but what stands in brackets would go dark, shut or be let go meanwhile: the program stays awake. Reckon the supply without sleep, or give that to another board.`;
    case 'awake-short':
      return `${what} is to sleep between readings, but one of its lines wants a reading more often than each minute: the program stays awake. Set a longer interval on Plan, Parts, and in Limits after how long a reading is old.`;
    case 'far-in-python':
      return `${what} is read by another board: the program in MicroPython hears of it through the gateway, the one in C++ leaves the network out here (an 8-bit board, or servos to be held).`;
    case 'no-tension':
      return `${what} gives a voltage, and nobody has said which tension is which. Set two points on Bench, Readout, Temperature, “Correct it”.`;
    case 'not-calibrated':
      return `${what} goes by a probe that has no calibration which holds here. Calibrate it first.`;
    case 'no-meaning':
      return `${what} is asked for degrees or volts, and nobody has said what its numbers mean. Give it its values on Bench, Readout.`;
    case 'other-board':
      return `${what} goes by something that another board measures, and this board does not report over the network, so nobody can tell it. Choose HTTP or MQTT for it on Plan, Parts, and draw it with its radio; or measure it on this board.`;
    case 'tank-unread':
      return `${what} has no channel that a pin alone can read. Its lines would never run.`;
    case 'contradiction':
      return `${what} has settings that stand against each other. Solve that first.`;
    case 'too-large':
      return `${what} has 2 048 bytes of working memory and 32 kB of program memory, as its kind has, and the program for all its probes and lines needs more. One line with its probe and a float goes, or a few contacts without a line; for more give it a larger board.`;
    case 'no-python':
      return `${what} is too small a board for MicroPython. Take C++, or a larger board.`;
  }
}

export const SHEET_NAMES: Readonly<Record<SketchProblem['sheet'], string>> = {
  'plan/parts': 'Plan, Parts',
  'plan/wiring': 'Plan, Wiring',
  'bench/readout': 'Bench, Readout',
  'bench/calibrate': 'Bench, Calibrate',
  'bench/dose': 'Bench, Dose',
  'rules/limits': 'Rules, Limits',
};

/** What a board's program does with its outputs: which work by themselves, and which only by hand. */
export function doesText({ lines, contacts, lamps, displays, engine, sleep }: BoardPlan): string {
  const isBySelf = (at: number) => {
    const config = engine.lines[at];
    return config?.enabled === true && config.program.kind !== 'alert-only';
  };
  const bySelf = lines.filter((_, at) => isBySelf(at)).map((one) => one.name);
  const byHand = lines.filter((_, at) => !isBySelf(at)).map((one) => one.name);
  const switching = contacts.filter(({ config }) => config.enabled).map((one) => one.name);
  const resting = contacts.filter(({ config }) => !config.enabled).map((one) => one.name);
  const shown = [...lamps, ...displays].map((one) => one.name);
  const latched = lines.filter(({ output }) => output.latch).map((one) => one.name);
  const pinched = lines.filter(({ output }) => output.pulses).map((one) => one.name);
  if (lines.length + contacts.length + shown.length === 0)
    return 'It reads and prints, and switches nothing.';
  const does = [
    ...(bySelf.length > 0 ? [`waters by itself with ${listed(bySelf)}`] : []),
    ...(switching.length > 0 ? [`switches ${listed(switching)}`] : []),
    ...(shown.length > 0
      ? [`shows with ${listed(shown)} how ${shown.length === 1 ? 'its plot is' : 'their plots are'} doing`]
      : []),
  ];
  return [
    ...(does.length > 0
      ? [`It reads ${sleep ? 'at each waking' : 'each second'}, and ${listed(does)}.`]
      : []),
    ...(byHand.length > 0
      ? [
          `${listed(byHand)} ${byHand.length === 1 ? 'runs' : 'run'} only when ordered at the console: watering by itself is not switched on in Limits, Program.`,
        ]
      : []),
    ...(resting.length > 0
      ? [
          `${listed(resting)} ${resting.length === 1 ? 'stays' : 'stay'} at rest: ${resting.length === 1 ? 'it is' : 'they are'} not switched on in Limits, Other outputs.`,
        ]
      : []),
    ...(latched.length > 0
      ? [
          `${listed(latched)}: a latching valve stays as its last pulse left it, open as well, when the supply fails or the program hangs. It is told to shut at each start, after each run twice, and each hour. Behind it hang no more water than may run out, or a second valve that shuts by a spring.`,
        ]
      : []),
    ...(pinched.length > 0
      ? [
          `${listed(pinched)}: a servo stays where it is when its supply fails, open as well as shut. Hang no more water above it than may run out.`,
        ]
      : []),
  ].join(' ');
}

/** What it keeps through a reboot, how long the board's memory stands that, and what watches over it. */
export function keepsText(plan: BoardPlan, language: 'C++' | 'MicroPython'): string {
  const places = keptPlaces(plan, language);
  const kept =
    plan.lines.length + plan.contacts.length === 0
      ? ''
      : places === 0
        ? `This board has no memory for it in C++: after a reboot ${plan.lines.length > 0 ? 'the minimum interval' : 'the pause between two stretches'} holds first, and the day’s sum begins anew.`
        : `It keeps ${listed([
            ...(plan.lines.length > 0 ? ['the day’s water', 'a lock', 'a watched dose'] : []),
            ...(plan.contacts.length > 0 ? ['how long each contact was on'] : []),
          ])} through a reboot, in ${places} places by turns: at most ${recordsADay(plan)} writes a day, which a memory that stands 100 000 writes a place bears for ${wearYears(plan, places)} years.`;
  const dog =
    language === 'MicroPython'
      ? 'A watchdog restarts it after 8 s in which nothing goes on.'
      : 'A watchdog restarts 8-bit boards after 8 s; other boards have their own or none.';
  return [
    'Its engine is proved to answer as the one in this page does.',
    kept,
    dog,
    plan.contacts.some(
      ({ config: { rule } }) => rule.kind === 'light' && (rule.from.by !== 'clock' || rule.to.by !== 'clock'),
    )
      ? 'Timers, hours and lights need the time and the hours of the sun, which this page gives it while it is connected: the sun’s hold for two weeks, the time until it restarts.'
      : 'Timers and hours need the time, which this page gives it while it is connected, and which it forgets when it restarts.',
  ]
    .filter((one) => one !== '')
    .join(' ');
}
