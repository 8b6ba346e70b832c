/** Checks of charging: the panel's charger suits its battery. */
import { fact, spotAt } from '../circuit.ts';
import { type Check } from '../finding.ts';
import { inV, partsWith } from '../look.ts';
import { solvedOf } from '../solve/solved.ts';

export const CHARGING_CHECKS: readonly Check[] = [
  {
    id: 'panel-match',
    title: 'Every panel’s charger suits its battery',
    why: 'A charger made for 12 V sets a lithium cell alight; one made for a cell never fills a 12 V battery.',
    run: (circuit, report) => {
      for (const panel of partsWith(circuit, 'solar')) {
        const solved = solvedOf(circuit);
        const device = solved.deviceOf(panel, 'itself');
        const across = device && solved.idle.across(device.a, device.b);
        if (across !== null && across < -0.5) {
          report.find(
            'danger',
            `${panel.part.label} is turned round: it would empty the battery instead of filling it, and its charger burns.`,
            panel.spots,
            {
              remedies: [
                {
                  kind: 'swap',
                  label: 'Exchange its two wires',
                  one: { part: panel.part.id, terminal: 'plus' },
                  other: { part: panel.part.id, terminal: 'gnd' },
                },
              ],
            },
          );
          continue;
        }
        const plus = spotAt(panel, 'plus');
        const level = plus && circuit.netOf(plus.end).level;
        if (!plus || !level) continue;
        const ratedV = fact(panel, 'ratedV');
        if (ratedV === null || level.volts === null)
          report.unknown(
            `For which battery the charger of ${panel.part.label} is made, or the battery’s voltage, is not known.`,
            [plus],
          );
        // A full battery stands a fifth above its name: 14.4 V for 12 V, 4.2 V for 3.7 V.
        else if (Math.abs(level.volts - 1.2 * ratedV) > 0.25 * level.volts)
          report.find(
            'danger',
            `${panel.part.label} has a charger for ${inV(ratedV)}; the battery reaches ${inV(level.volts)}.`,
            [plus],
          );
        else report.fine();
      }
    },
  },
];
