/** Checks of what runs, over the solutions: every pump, valve and lamp is on when it is told to be, and only then. */
import { ledResistor } from '../../../electrics/led.ts';
import { type Circuit, type Placed, type Spot, fact, hasRole, isType, spotAt } from '../../circuit.ts';
import type { Check, Remedy } from '../../finding.ts';
import { groundSpot, inMa, inOhm, inV, isWired, nameOf, onTheWay, others, partsWith } from '../../look.ts';
import { driverOf } from '../../pinUse.ts';
import { most, solvedOf, type Solved } from '../../solve/solved.ts';
import { workAcross, workAmps, workVoltsAt } from '../../solve/working.ts';
import { type Worked } from '../../../quantity/worked.ts';

/** Of its rated voltage a load that has less counts as off, and as on from half of it. */
const OFF_SHARE = 0.2;
const ON_SHARE = 0.5;
/** A load bears so much more or less than its rating: 12 V means 14.4 V of a full battery as well. */
const BEARS_SHARE = 0.26;
/** What a single lamp bears for long, mA. */
const LED_MOST_MA = 25;
/** Below this share of what it wants a lamp is not seen by day. */
const LED_DIM_SHARE = 0.15;

const SOURCES = new Set<string>(['pin', 'ground', 'supply in', 'supply out']);

const ends = (placed: Placed, ...ids: string[]): Spot[] => ids.flatMap((id) => spotAt(placed, id) ?? []);

type Runs = {
  readonly spots: readonly Spot[];
  readonly volts: (at: Solved['idle']) => number;
  /** Where its voltage comes from. */
  readonly working: (at: Solved['idle']) => { readonly worked: Worked };
};

function runsOf(circuit: Circuit, solved: Solved, load: Placed): Runs | null {
  const spots = ends(load, 'plus', 'minus');
  const [plus, minus] = spots;
  if (!plus || !minus || !isWired(circuit, plus) || !isWired(circuit, minus)) return null;
  const [a, b] = [solved.mesh.nodeOf(plus.end), solved.mesh.nodeOf(minus.end)];
  const switches = [plus, minus].flatMap((spot) =>
    others(circuit, spot).filter((one) => isType(one, 'switched')),
  );
  return {
    spots: [...spots, ...switches],
    volts: (at) => at.across(a, b),
    working: (at) => ({
      worked: workAcross(solved.mesh, at, [a, b], `Voltage across ${load.part.label}`),
    }),
  };
}

export const RUNNING_CHECKS: readonly Check[] = [
  {
    id: 'load-runs',
    title: 'Every pump and valve runs when it is told to, and only then',
    why: 'One that never runs waters nothing; one that runs unasked empties the tank onto the floor.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      const { idle, boot, situations } = solved;
      const ones = [...situations.one.values()].map((situation) => solved.of(situation));
      for (const load of partsWith(circuit, 'pump', 'valve')) {
        const runs = runsOf(circuit, solved, load);
        const ratedV = fact(load, 'ratedV');
        if (!runs || ratedV === null) continue;
        const { label } = load.part;
        const { spots } = runs;
        const share = (at: Solved['idle']) => Math.abs(runs.volts(at)) / ratedV;
        const on = most(ones, share);
        if (share(idle) > OFF_SHARE)
          report.find(
            'danger',
            `${label} runs all the time: it has ${inV(Math.abs(runs.volts(idle)))} with everything off.`,
            spots,
            runs.working(idle),
          );
        else if (share(boot) > OFF_SHARE)
          report.find(
            'danger',
            `${label} runs while the board starts, at every restart, until the program stops it.`,
            spots,
            runs.working(boot),
          );
        else if (!on || on.value < ON_SHARE)
          report.find(
            'fault',
            `${label} never runs: no output gives it more than ${inV(Math.abs(on ? runs.volts(on.at) : 0))} of its ${inV(ratedV)}.`,
            spots,
            { isConsequence: true, ...(on ? runs.working(on.at) : {}) },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'load-voltage',
    title: 'Every pump and valve gets the voltage it is made for',
    why: 'A 5 V pump on 12 V burns within minutes; a 12 V valve on 5 V does not open.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      const running = solved.all.filter(
        ({ situation }) => situation.kind === 'one on' || situation.kind === 'idle',
      );
      for (const load of partsWith(circuit, 'pump', 'valve')) {
        const plus = spotAt(load, 'plus');
        const runs = runsOf(circuit, solved, load);
        const ratedV = fact(load, 'ratedV');
        if (!plus || !isWired(circuit, plus)) continue;
        const level = circuit.netOf(plus.end).level;
        if (ratedV === null || level?.volts === null) {
          report.unknown(`The voltage of ${load.part.label}, or what feeds it, is not known.`, [plus]);
          continue;
        }
        const on = runs && most(running, (at) => Math.abs(runs.volts(at)));
        const volts = on && on.value > OFF_SHARE * ratedV ? on.value : (level?.volts ?? null);
        if (volts === null) continue;
        if (Math.abs(volts - ratedV) > BEARS_SHARE * ratedV)
          report.find(
            'fault',
            `${load.part.label} is made for ${inV(ratedV)} and gets ${inV(volts)}.`,
            [plus],
            runs && on && on.value === volts ? runs.working(on.at) : {},
          );
        else if (
          runs &&
          on &&
          isType(plus, 'load') &&
          plus.terminal.load === 'motor' &&
          runs.volts(on.at) < -1
        )
          report.find('caution', `${load.part.label} is turned round: it would run backwards.`, runs.spots, {
            remedies: [
              {
                kind: 'swap',
                label: 'Exchange its two wires',
                one: { part: load.part.id, terminal: 'plus' },
                other: { part: load.part.id, terminal: 'minus' },
              },
            ],
          });
        else report.fine();
      }
    },
  },
  {
    id: 'led-resistor',
    title: 'Every LED has its series resistor, and lights',
    why: 'An LED without one takes whatever the pin gives: both wear out. With too large a one, or turned round, it stays dark.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const led of partsWith(circuit, 'LED')) {
        const spots = ends(led, 'anode', 'cathode');
        const [anode, cathode] = spots;
        const device = solved.deviceOf(led, 'itself');
        if (!anode || !cathode || !device || !isWired(circuit, anode) || !isWired(circuit, cathode)) continue;
        const { label } = led.part;
        const wantsMa = fact(led, 'activeMa') ?? 5;
        // A resistor on a pin or rail that the lamp hangs on as well is not before it.
        const resistors = [anode, cathode]
          .filter((spot) => !others(circuit, spot).some((one) => SOURCES.has(one.terminal.type)))
          .flatMap((spot) => others(circuit, spot).filter((one) => hasRole(one.placed, 'resistor')));
        if (fact(led, 'forwardV') === null || resistors.some((one) => fact(one.placed, 'ohm') === null)) {
          report.unknown(`The resistor, supply or forward voltage of ${label} is not known.`, [anode]);
          continue;
        }
        const current = most(solved.all, (at) => at.ampsOf(device) * 1000);
        const ma = current?.value ?? 0;
        const working = current
          ? workAmps(current.at, [{ device, name: 'through it' }], `Current of ${label}`)
          : {};
        if (ma > LED_MOST_MA)
          report.find(
            'fault',
            resistors.length === 0
              ? `${label} has no series resistor: ${inMa(ma)} would flow, and it bears ${inMa(LED_MOST_MA)}.`
              : `${inMa(ma)} would flow through ${label}, which bears ${inMa(LED_MOST_MA)}: its resistor is too small, or by-passed.`,
            [...spots, ...resistors],
            { ...ledRemedy(circuit, led, anode, wantsMa, resistors), ...working },
          );
        else if (ma < 0.05) {
          const isTurned = most(solved.all, (at) => -at.across(device.a, device.b));
          report.find(
            'caution',
            isTurned && isTurned.value > 1
              ? `${label} is turned round: it stays dark.`
              : `${label} never lights: nothing drives it, or what drives it gives less than it wants.`,
            [...spots, ...resistors],
            {
              isConsequence: true,
              remedies:
                isTurned && isTurned.value > 1
                  ? [{ kind: 'swap', label: 'Turn it round', one: anode.end, other: cathode.end }]
                  : [],
            },
          );
        } else if (ma < LED_DIM_SHARE * wantsMa)
          report.find(
            'caution',
            `Only ${inMa(ma)} flows through ${label}, which wants ${inMa(wantsMa)}: nobody sees it by day.`,
            [...spots, ...resistors],
            { ...ledRemedy(circuit, led, anode, wantsMa, resistors), ...working },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'input-driven',
    title: 'Every input that switches something is driven both ways',
    why: 'What is never driven does nothing; what is always driven never stops.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const placed of circuit.parts.values())
        for (const spot of placed.spots) {
          if (!isType(spot, 'digital in') && !isType(spot, 'uart in') && !isType(spot, 'control')) continue;
          if (!isWired(circuit, spot)) continue;
          // What decides: half of what counts as high, a gate's voltage, a base's threshold.
          const fromV = isType(spot, 'control')
            ? spot.terminal.device === 'base'
              ? 0.6
              : 0.4 * (fact(placed, 'gateFullOnV') ?? 2)
            : 0.5 * (spot.terminal.highFromV ?? 2);
          const set = solved.all.filter(({ situation }) => situation.kind !== 'boot');
          const highest = most(set, (at) => solved.voltsAt(at, spot));
          const lowest = most(set, (at) => -(solved.voltsAt(at, spot) ?? NaN));
          if (!highest || !lowest || highest.value < fromV)
            report.find(
              'fault',
              `Nothing ever drives ${nameOf(spot)} high${highest ? `: it sees ${inV(Math.max(0, highest.value))} at most` : ', for the two have no ground in common'}.`,
              [spot, ...onTheWay(circuit, spot)],
              { isConsequence: true, ...(highest ? workVoltsAt(solved, highest.at, spot) : {}) },
            );
          else if (-lowest.value > fromV && !isType(spot, 'uart in'))
            report.find(
              'fault',
              `${nameOf(spot)} is always high: it never sees less than ${inV(-lowest.value)}.`,
              [spot, ...onTheWay(circuit, spot)],
              { isConsequence: true, ...workVoltsAt(solved, lowest.at, spot) },
            );
          else report.fine();
        }
    },
  },
  {
    id: 'gate-pull-down',
    title: 'Every MOSFET stays off while the board boots',
    why: 'Until the program sets its pin, an open gate floats: the pump may run at every start.',
    run: (circuit, report) => {
      const { boot, mesh } = solvedOf(circuit);
      for (const placed of partsWith(circuit, 'MOSFET')) {
        const gate = spotAt(placed, 'gate');
        const low = spotAt(placed, 'source');
        if (!gate || !low || !isWired(circuit, gate)) continue;
        const [one, other] = [mesh.nodeOf(gate.end), mesh.nodeOf(low.end)];
        const apart = Number.isNaN(boot.across(one, other));
        if (!apart && !boot.floats(one)) {
          report.fine();
          continue;
        }
        const driver = driverOf(circuit, gate);
        const ground = groundSpot(placed);
        report.find(
          'caution',
          `${placed.part.label} has no pull-down: its gate floats until the program sets ${driver ? nameOf(driver) : 'its pin'}.`,
          driver ? [gate, driver] : [gate],
          {
            remedies: ground
              ? [
                  {
                    kind: 'bridge',
                    label: 'Put 100 kΩ from gate to ground',
                    entryId: 'resistor',
                    ends: { a: gate.end, b: ground.end },
                    settings: { ohm: 100_000 },
                  },
                ]
              : [],
          },
        );
      }
    },
  },
];

/** A resistor that suits an LED: a new one before it, or another value for the one that is there. */
function ledRemedy(
  circuit: Circuit,
  led: Placed,
  anode: Spot,
  currentMa: number,
  resistors: readonly Spot[],
): { remedies: Remedy[] } {
  const driver = driverOf(circuit, anode);
  const pinV = driver ? fact(driver.placed, 'logicV') : (circuit.netOf(anode.end).level?.volts ?? null);
  const forwardV = fact(led, 'forwardV');
  if (pinV === null || forwardV === null) return { remedies: [] };
  const found = ledResistor({ pinV, forwardV, currentMa, series: 'E12' });
  if (!found.ok) return { remedies: [] };
  const { ohm } = found.value;
  const [held] = resistors;
  return {
    remedies: [
      held
        ? { kind: 'set-fact', label: `Take ${inOhm(ohm)}`, part: held.placed.part.id, key: 'ohm', value: ohm }
        : {
            kind: 'insert',
            label: `Put ${inOhm(ohm)} before it`,
            entryId: 'resistor',
            at: anode.end,
            inTerminal: 'a',
            outTerminal: 'b',
            ground: null,
            settings: { ohm },
          },
    ],
  };
}
