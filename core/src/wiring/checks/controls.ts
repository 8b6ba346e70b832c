/** Checks of LEDs and of what a pin drives a switch with: base and gate resistors, pull-downs, gate voltage. */
import { baseResistor, gateResistor } from '../../electrics/switches.ts';
import { type Circuit, type Placed, type Spot, fact, spotAt } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import { behind, inMa, inOhm, inV, isWired, nameOf, partsWith } from '../look.ts';
import { driverOf } from '../pinUse.ts';
import { loadsOf } from '../switched.ts';

/** A gate resistor of a third of what the limit asks is still usual: the gate takes its current for an instant only. */
const TOO_SMALL = 0.3;

const insertResistor = (spot: Spot, ohm: number, label: string): Remedy => ({
  kind: 'insert',
  label,
  entryId: 'resistor',
  at: spot.end,
  inTerminal: 'a',
  outTerminal: 'b',
  ground: null,
  settings: { ohm },
});

/** A control terminal that a pin drives, and the resistor between, if there is one. */
function controls(circuit: Circuit, device: 'gate' | 'base') {
  return partsWith(circuit, 'MOSFET', 'transistor').flatMap((placed) => {
    const terminal = placed.entry.terminals.find((one) => one.type === 'control' && one.device === device);
    const spot = terminal ? spotAt(placed, terminal.id) : null;
    if (!spot || !isWired(circuit, spot)) return [];
    const driver = driverOf(circuit, spot);
    if (!driver) return [];
    // Both ends on one net: it is by-passed.
    const series = behind(circuit, spot, 'resistor').find(
      (one) =>
        circuit.netOf({ part: one.by.part.id, terminal: 'a' }) !==
          circuit.netOf({ part: one.by.part.id, terminal: 'b' }) &&
        one.spots.some((far) => far.placed === driver.placed && far.terminal.id === driver.terminal.id),
    );
    return [{ placed, spot, driver, series: series?.by ?? null }];
  });
}

function loadMaOf(circuit: Circuit, placed: Placed): number | null {
  const loads = loadsOf(circuit, placed);
  return loads.reduce<number | null>((sum, load) => {
    const ma = fact(load, 'activeMa');
    return sum === null || ma === null ? null : sum + ma;
  }, 0);
}

export const CONTROL_CHECKS: readonly Check[] = [
  {
    id: 'base-resistor',
    title: 'Every transistor has its base resistor',
    why: 'Without one the base takes all the pin gives; with too large a one the transistor does not switch fully and heats.',
    run: (circuit, report) => {
      for (const { placed, spot, driver, series } of controls(circuit, 'base')) {
        const pinV = fact(driver.placed, 'logicV');
        const hfe = fact(placed, 'hfe');
        const loadMa = loadMaOf(circuit, placed);
        const pinMa = fact(driver.placed, 'pinMa');
        if (pinV === null || hfe === null || loadMa === null || pinMa === null) {
          report.unknown(
            `Gain, load or pin of ${placed.part.label} is not known, so its base resistor cannot be judged.`,
            [spot, driver],
          );
          continue;
        }
        const found = baseResistor({
          pinV,
          loadMa: Math.max(loadMa, 1),
          hfe,
          overdrive: 3,
          pinMa,
          series: 'E12',
        });
        const ohm = series ? fact(series, 'ohm') : null;
        if (!found.ok)
          report.find(
            'fault',
            `${placed.part.label} cannot switch ${inMa(loadMa)}: its base would want more than the ${inMa(pinMa)} of ${nameOf(driver)}. A MOSFET can.`,
            [spot, driver],
            {
              remedies: [
                {
                  kind: 'replace',
                  label: 'Take a logic-level MOSFET instead',
                  part: placed.part.id,
                  entryId: 'switch-mosfet',
                },
              ],
            },
          );
        else if (!series)
          report.find(
            'fault',
            `${placed.part.label} has no base resistor; ${inOhm(found.value.ohm)} suits ${inMa(loadMa)}.`,
            [spot, driver],
            {
              worked: found.value.worked,
              remedies: [
                insertResistor(spot, found.value.ohm, `Put ${inOhm(found.value.ohm)} before its base`),
              ],
            },
          );
        else if (ohm === null)
          report.unknown(`The base resistor of ${placed.part.label} has no value yet.`, [spot, driver]);
        else if (ohm > found.value.ohm * 3)
          report.find(
            'caution',
            `${placed.part.label} has ${inOhm(ohm)} at its base; ${inMa(loadMa)} wants ${inOhm(found.value.ohm)} or it does not switch fully.`,
            [spot, driver],
            {
              worked: found.value.worked,
              remedies: [
                {
                  kind: 'set-fact',
                  label: `Take ${inOhm(found.value.ohm)}`,
                  part: series.part.id,
                  key: 'ohm',
                  value: found.value.ohm,
                },
              ],
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'gate-resistor',
    title: 'Every MOSFET has its gate resistor',
    why: 'An empty gate is a short for an instant; the resistor keeps the pin within its limit and the wire from ringing.',
    run: (circuit, report) => {
      for (const { placed, spot, driver, series } of controls(circuit, 'gate')) {
        const pinV = fact(driver.placed, 'logicV');
        const pinMa = fact(driver.placed, 'pinMa');
        const heldOhm = series ? fact(series, 'ohm') : null;
        if (series && (heldOhm === null || pinV === null || pinMa === null)) {
          if (heldOhm === null)
            report.unknown(`The gate resistor of ${placed.part.label} has no value yet.`, [spot, driver]);
          else report.fine();
        } else if (series && heldOhm !== null && heldOhm >= (TOO_SMALL * (pinV ?? 0)) / ((pinMa ?? 1) / 1000))
          report.fine();
        else if (pinV === null || pinMa === null)
          report.unknown(
            `The pin that drives ${placed.part.label} is not known well enough for its gate resistor.`,
            [spot, driver],
          );
        else {
          const found = gateResistor({
            pinV,
            pinMa,
            gateFullOnV: 0,
            onOhm: 0,
            loadMa: 0,
            pullDownOhm: 100_000,
            series: 'E12',
          });
          const ohm = found.ok ? found.value.ohm : 220;
          report.find(
            'caution',
            series && heldOhm !== null
              ? `${placed.part.label} has only ${inOhm(heldOhm)} before its gate: for an instant ${inMa((pinV / heldOhm) * 1000)} flow; ${inOhm(ohm)} keeps ${nameOf(driver)} below ${inMa(pinMa)}.`
              : `${placed.part.label} has no gate resistor; ${inOhm(ohm)} keeps ${nameOf(driver)} below ${inMa(pinMa)}.`,
            series ? [spot, driver, ...series.spots] : [spot, driver],
            {
              ...(found.ok ? { worked: found.value.worked } : {}),
              remedies: [
                series
                  ? {
                      kind: 'set-fact',
                      label: `Take ${inOhm(ohm)}`,
                      part: series.part.id,
                      key: 'ohm',
                      value: ohm,
                    }
                  : insertResistor(spot, ohm, `Put ${inOhm(ohm)} before its gate`),
              ],
            },
          );
        }
      }
    },
  },
  {
    id: 'gate-drive',
    title: 'Every MOSFET is fully on at its pin’s voltage',
    why: 'A MOSFET that is half on is a heater. The voltage at which its sheet states the on-resistance counts, not its threshold.',
    run: (circuit, report) => {
      for (const { placed, spot, driver } of controls(circuit, 'gate')) {
        const pinV = fact(driver.placed, 'logicV');
        const fullOnV = fact(placed, 'gateFullOnV');
        if (pinV === null || fullOnV === null)
          report.unknown(`At which gate voltage ${placed.part.label} is fully on is not known.`, [
            spot,
            driver,
          ]);
        else if (pinV < fullOnV)
          report.find(
            'fault',
            `${placed.part.label} wants ${inV(fullOnV)} at its gate; ${nameOf(driver)} gives ${inV(pinV)}.`,
            [spot, driver],
            {
              remedies: [
                {
                  kind: 'replace',
                  label: 'Take a logic-level MOSFET',
                  part: placed.part.id,
                  entryId: 'switch-mosfet',
                },
              ],
            },
          );
        else report.fine();
      }
    },
  },
];
