/** Checks of what is read, over the solutions: every signal arrives where it is read, inside the scale, and nothing that is read floats. */
import { remembered } from '../../../quantity/remembered.ts';
import { formatNumber } from '../../../quantity/format.ts';
import { type Circuit, type Spot, fact, hasRole, isBareSensor, isType } from '../../circuit.ts';
import { dividerRemedy } from '../../dividerRemedy.ts';
import type { Check, Remedy } from '../../finding.ts';
import { allSpots, inV, isWired, listOf, nameOf, onTheWay } from '../../look.ts';
import { most, solvedOf, type Solved } from '../../solve/solved.ts';
import type { Solution } from '../../solve/solve.ts';
import { workVoltsAt } from '../../solve/working.ts';

/** A change that an input can tell from nothing, V. */
const MOVES_V = 0.02;
/** Of its logic voltage an input takes this for high. */
const HIGH_SHARE = 0.65;
/** A signal that uses less than a third of the scale has less than a third of its steps. */
const BIG_ENOUGH = 0.34;

type Input = { readonly spot: Spot; readonly fullScaleV: number | null };

/** Pins and converter inputs that something is wired to. */
const inputsOf = remembered((circuit: Circuit): readonly Input[] =>
  allSpots(circuit).flatMap((spot): Input[] =>
    (isType(spot, 'pin') || isType(spot, 'analog in')) && isWired(circuit, spot)
      ? [{ spot, fullScaleV: spot.terminal.fullScaleV ?? null }]
      : [],
  ),
);

/** Inputs that follow a signal, with the volts they reach. */
function followers(circuit: Circuit, solved: Solved, at: Solution) {
  return inputsOf(circuit).flatMap((input) => {
    const high = solved.voltsAt(at, input.spot);
    const low = solved.voltsAt(solved.idle, input.spot);
    return high !== null && low !== null && Math.abs(high - low) > MOVES_V ? [{ ...input, high, low }] : [];
  });
}

const canRead = ({ spot }: Input): boolean =>
  isType(spot, 'analog in') || (isType(spot, 'pin') && spot.terminal.caps.includes('adc'));

export const SIGNAL_CHECKS: readonly Check[] = [
  {
    id: 'signal-arrives',
    title: 'What every probe and switch says reaches an input',
    why: 'A signal that stops at a loose wire, a short or a missing ground is read as if all were well.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const [spot, situation] of solved.situations.signals) {
        if (!isWired(circuit, spot)) continue;
        const reached = followers(circuit, solved, solved.of(situation));
        const isAnalog = isType(spot, 'analog out') || isType(spot, 'loop') || isBareSensor(spot.placed);
        const fit = reached.filter((input) => !isAnalog || canRead(input));
        if (fit.length === 0)
          report.find(
            'fault',
            `What ${spot.placed.part.label} says reaches no input${isAnalog && reached.length > 0 ? ' that reads a voltage' : ''}: whether ${nameOf(spot)} is at its lowest or highest, nothing changes there.`,
            [spot, ...onTheWay(circuit, spot)],
            { isConsequence: true },
          );
        else if (fit.length > 1)
          report.find(
            'fault',
            `${nameOf(spot)} moves ${listOf(fit.map((one) => nameOf(one.spot)))} at once: they are joined.`,
            [spot, ...fit.map((one) => one.spot)],
            { isConsequence: true },
          );
        else report.fine();
      }
      for (const [placed, situation] of solved.situations.contacts) {
        if (placed.spots.some((spot) => !isWired(circuit, spot))) continue;
        const closed = solved.of(situation);
        const told = inputsOf(circuit).filter(({ spot }) => {
          const logicV = fact(spot.placed, 'logicV') ?? 3.3;
          const [open, shut] = [solved.voltsAt(solved.idle, spot), solved.voltsAt(closed, spot)];
          return open !== null && shut !== null && Math.abs(open - shut) > 0.45 * logicV;
        });
        if (told.length === 0)
          report.find(
            'fault',
            `${placed.part.label} tells nothing: open or closed, no input sees more than a small change. It wants a pull-up on its input, and its other wire on ground.`,
            placed.spots,
            { isConsequence: true },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'input-floats',
    title: 'Nothing that is read floats',
    why: 'An open input drifts with every hand near it: a float switch on it says full and empty by chance.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      const judged = [...solved.situations.contacts.values(), solved.situations.idle].map((one) =>
        solved.of(one),
      );
      for (const { pin, use, spots } of solved.situations.uses) {
        if (use !== 'reads a voltage' && use !== 'reads on and off') continue;
        const node = solved.mesh.nodeOf(pin.end);
        const floating = judged.find((at) => at.floats(node));
        const contact = spots.find((spot) => hasRole(spot.placed, 'contact'));
        // At a start every pin floats; what stands behind a switch must be told by then as well.
        const isWeak = contact !== undefined && solved.boot.floats(node);
        if (!floating && !isWeak) {
          report.fine();
          continue;
        }
        const remedies = contact ? pullUp(pin) : [];
        if (floating)
          report.find(
            'fault',
            contact
              ? `${nameOf(pin)} floats while ${contact.placed.part.label} is open, for the pin has no pull-up of its own: the program would read full and empty by chance.`
              : `${nameOf(pin)} floats: nothing gives it a voltage ${floating.situation.when}.`,
            [pin, ...spots],
            { isConsequence: !contact, remedies },
          );
        else if (contact)
          report.find(
            'caution',
            `${contact.placed.part.label} has no pull-up but the weak one inside ${nameOf(pin)}, which is there only once the program has set it: until then, and on a long cable, the input drifts. 10 kΩ to the board’s own supply holds it.`,
            [pin, ...spots],
            { remedies },
          );
      }
    },
  },
  {
    id: 'contact-level',
    title: 'Every switch gives its input a clear high and a clear low',
    why: 'Between the two an input reads what it likes: a pull-up that is too weak or too strong, or a resistance in the way.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const [placed, situation] of solved.situations.contacts)
        for (const { pin, use, spots } of solved.situations.uses) {
          if (use !== 'reads on and off' || !spots.some((spot) => spot.placed === placed)) continue;
          const logicV = fact(pin.placed, 'logicV') ?? 3.3;
          const open = solved.voltsAt(solved.idle, pin);
          const shut = solved.voltsAt(solved.of(situation), pin);
          if (open === null || shut === null || Math.abs(open - shut) <= 0.45 * logicV) continue;
          if (Math.max(open, shut) < 0.7 * logicV || Math.min(open, shut) > 0.3 * logicV)
            report.find(
              'fault',
              `${placed.part.label} gives ${nameOf(pin)} ${inV(Math.min(open, shut))} and ${inV(Math.max(open, shut))}; below ${inV(0.3 * logicV)} is low, above ${inV(0.7 * logicV)} is high.`,
              [pin, ...spots],
              // The level that is not clear is the one to look at.
              workVoltsAt(
                solved,
                shut < open === Math.min(open, shut) > 0.3 * logicV ? solved.of(situation) : solved.idle,
                pin,
              ),
            );
          else report.fine();
        }
    },
  },
  {
    id: 'signal-level',
    title: 'Every digital signal is a clear high at its input',
    why: 'A divider that takes too much away leaves a high that the board reads as low.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const [spot, situation] of solved.situations.signals) {
        if (!isType(spot, 'digital out') || !isWired(circuit, spot)) continue;
        for (const { spot: input, high } of followers(circuit, solved, solved.of(situation))) {
          const logicV = fact(input.placed, 'logicV');
          if (logicV === null) continue;
          if (high < HIGH_SHARE * logicV)
            report.find(
              'fault',
              `${nameOf(spot)} gives ${nameOf(input)} only ${inV(high)}; above ${inV(HIGH_SHARE * logicV)} is high.`,
              [
                spot,
                input,
                ...circuit.netOf(input.end).spots.filter((one) => hasRole(one.placed, 'divider', 'resistor')),
              ],
              { isConsequence: true, ...workVoltsAt(solved, solved.of(situation), input) },
            );
          else report.fine();
        }
      }
    },
  },
  {
    id: 'analog-range',
    title: 'No signal runs past the end of its converter’s scale',
    why: 'Above full scale every value reads the same: the dry end of a probe is simply cut off.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const { input, source, at, isKnown } of readings(circuit, solved)) {
        const { fullScaleV, spot } = input;
        const volts = at && solved.voltsAt(at, spot);
        if (fullScaleV === null || at === null || volts === null || !isKnown)
          report.unknown(
            `Whether ${nameOf(source)} fits the scale of ${nameOf(spot)} cannot be told: ${fullScaleV === null ? 'the full scale' : 'the highest signal'} is not known.`,
            [spot, source],
          );
        else if (volts > fullScaleV * 1.02)
          report.find(
            'fault',
            `${nameOf(source)} reaches ${inV(volts)}; ${nameOf(spot)} reads full scale at ${inV(fullScaleV)}. Everything above is cut off.`,
            [spot, source],
            {
              remedies: dividerRemedy(
                spot,
                volts,
                fullScaleV,
                isType(source, 'analog out') ? (source.terminal.sourceOhm ?? 0) : 0,
              ),
              ...workVoltsAt(solved, at, spot),
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'analog-small',
    title: 'Every signal uses a good part of the scale',
    why: 'A signal that spans a tenth of the scale has a tenth of the steps.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const { input, source, at, isKnown } of readings(circuit, solved)) {
        const { fullScaleV, spot } = input;
        const volts = at && solved.voltsAt(at, spot);
        if (
          fullScaleV === null ||
          at === null ||
          volts === null ||
          !isKnown ||
          solved.idle.floats(solved.mesh.nodeOf(spot.end))
        )
          continue;
        const least = hasRole(source.placed, 'battery monitor', 'resistor') ? BIG_ENOUGH / 2 : BIG_ENOUGH;
        if (volts < fullScaleV * least)
          report.find(
            'caution',
            `${nameOf(source)} reaches only ${inV(volts)} of the ${inV(fullScaleV)} that ${nameOf(spot)} can read: ${formatNumber((volts / fullScaleV) * 100)} % of its steps.`,
            [spot, source],
            { isConsequence: volts < MOVES_V, ...workVoltsAt(solved, at, spot) },
          );
        else report.fine();
      }
    },
  },
];

/** A resistor from a pin to its board's own supply. */
function pullUp(pin: Spot): Remedy[] {
  const { spots } = pin.placed;
  const logic =
    spots.find((spot) => isType(spot, 'supply out') && spot.terminal.volts === fact(pin.placed, 'logicV')) ??
    spots.find((spot) => isType(spot, 'supply in'));
  return logic
    ? [
        {
          kind: 'bridge',
          label: 'Pull it up with 10 kΩ',
          entryId: 'resistor',
          ends: { a: pin.end, b: logic.end },
          settings: { ohm: 10_000 },
        },
      ]
    : [];
}

type Reading = {
  readonly input: Input;
  readonly source: Spot;
  /** Where the input sees the most. */
  readonly at: Solution | null;
  readonly isKnown: boolean;
};

/** Every input that reads a voltage, with what it reads. */
function readings(circuit: Circuit, solved: Solved): Reading[] {
  return solved.situations.uses.flatMap(({ pin, use, spots }): Reading[] => {
    if (use !== 'reads a voltage') return [];
    const source =
      spots.find((spot) => isType(spot, 'analog out') || isBareSensor(spot.placed)) ??
      spots.find((spot) => hasRole(spot.placed, 'divider', 'battery monitor', 'resistor'));
    // A loop is judged by its shunt.
    if (!source || spots.some((spot) => isType(spot, 'loop'))) return [];
    const highest = most(solved.all, (at) => solved.voltsAt(at, pin));
    const isKnown = circuit.netOf(pin.end).level?.volts !== null && knownSource(circuit, source);
    return [
      {
        input: { spot: pin, fullScaleV: pin.terminal.fullScaleV ?? null },
        source,
        at: highest?.at ?? null,
        isKnown,
      },
    ];
  });
}

function knownSource(circuit: Circuit, source: Spot): boolean {
  if (hasRole(source.placed, 'divider', 'battery monitor'))
    return (
      fact(source.placed, 'upperOhm') !== null &&
      fact(source.placed, 'lowerOhm') !== null &&
      circuit.netOf({ part: source.end.part, terminal: 'in' }).level?.volts !== null
    );
  return true;
}
