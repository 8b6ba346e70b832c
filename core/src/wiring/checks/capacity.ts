/** Checks of strength: supplies, regulators, fuses and cables bear what hangs on them. */
import { cableAmps, thinnestCableMm2, workCableDrop } from '../../electrics/cable.ts';
import { fuseFor } from '../../electrics/fuse.ts';
import { formatNumber } from '../../quantity/format.ts';
import { type Circuit, type Placed, type Spot, fact, hasRole, isType, spotAt } from '../circuit.ts';
import { type Check } from '../finding.ts';
import { inMa, inV, isWired, listOf, nameOf, others, partsWith } from '../look.ts';
import { type End } from '../netlist.ts';
import { fedNets, isLoad, loadOfSupply, wiredSources } from '../supplyLoad.ts';

export const CAPACITY_CHECKS: readonly Check[] = [
  {
    id: 'regulator-load',
    title: 'No board’s regulator carries more than it may',
    why: 'A small regulator on a board heats, drops its voltage and with it every reading. Pumps never hang there.',
    run: (circuit, report) => {
      for (const source of wiredSources(circuit)) {
        if (!hasRole(source.placed, 'board') || !isType(source, 'supply out')) continue;
        const motors = fedNets(circuit, source)
          .flatMap((net) => net.spots)
          .filter((spot) => isType(spot, 'load') || hasRole(spot.placed, 'servo'));
        if (motors.length > 0) {
          report.find(
            'fault',
            `${listOf([...new Set(motors.map((spot) => spot.placed.part.label))])} hangs on ${nameOf(source)}, the board’s own supply. Feed motors and coils from the main supply.`,
            motors,
          );
          continue;
        }
        judgeLoad(circuit, source, report, 'the board allows');
      }
    },
  },
  {
    id: 'supply-load',
    title: 'Every supply can carry what hangs on it',
    why: 'With everything on at once, the start of a pump included, a weak supply sags and the board restarts, again and again.',
    run: (circuit, report) => {
      for (const source of wiredSources(circuit))
        if (!hasRole(source.placed, 'board')) judgeLoad(circuit, source, report, 'it gives at most');
    },
  },
  {
    id: 'panel-match',
    title: 'Every panel’s charger suits its battery',
    why: 'A charger made for 12 V sets a lithium cell alight; one made for a cell never fills a 12 V battery.',
    run: (circuit, report) => {
      for (const panel of partsWith(circuit, 'solar')) {
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
  {
    id: 'fuse-missing',
    title: 'Every battery has a fuse',
    why: 'A battery gives hundreds of amperes into a short: the cable glows before it does anything else.',
    run: (circuit, report) => {
      for (const battery of partsWith(circuit, 'battery')) {
        const plus = spotAt(battery, 'plus');
        if (!plus || !isWired(circuit, plus)) continue;
        const next = others(circuit, plus);
        const bare = next.filter((spot) => !hasRole(spot.placed, 'fuse', 'solar', 'battery monitor'));
        if (bare.length === 0 && next.some((spot) => hasRole(spot.placed, 'fuse'))) report.fine();
        else if (bare.length === 0) continue;
        else {
          const load = loadOfSupply(circuit, plus);
          const found = fuseFor({
            currentMa: Math.max(load.ma, 100),
            areaMm2: thinnestBehind(circuit, plus) ?? 0.5,
          });
          const fuseA = found.ok ? found.value.fuseA : 3;
          report.find(
            'danger',
            `${battery.part.label} feeds ${listOf([...new Set(bare.map((spot) => spot.placed.part.label))])} without a fuse.`,
            [plus, ...bare],
            {
              ...(found.ok ? { worked: found.value.worked } : {}),
              remedies: [
                {
                  kind: 'insert',
                  label: `Put a ${formatNumber(fuseA, fuseA % 1 === 0 ? 0 : 1)} A fuse behind its plus`,
                  entryId: 'fuse',
                  at: plus.end,
                  inTerminal: 'b',
                  outTerminal: 'a',
                  ground: null,
                  settings: { fuseA },
                },
              ],
            },
          );
        }
      }
    },
  },
  {
    id: 'fuse-size',
    title: 'Every fuse protects its cable and bears its load',
    why: 'Too small and it blows when the pump starts; too large and the cable is the fuse.',
    run: (circuit, report) => {
      for (const fuse of partsWith(circuit, 'fuse')) {
        const load = spotAt(fuse, 'b');
        const source = load && circuit.netOf(load.end).level?.from;
        if (!load || !source) continue;
        const fuseA = fact(fuse, 'fuseA');
        const areaMm2 = thinnestBehind(circuit, load);
        const use = loadOfSupply(circuit, source);
        if (fuseA === null || areaMm2 === null || use.missing.length > 0) {
          report.unknown(
            `Whether ${fuse.part.label} fits cannot be told: ${fuseA === null ? 'its rating' : areaMm2 === null ? 'the cross-section of a cable behind it' : `the current of ${listOf(use.missing)}`} is not known.`,
            [load],
          );
          continue;
        }
        const found = fuseFor({ currentMa: use.ma, areaMm2 });
        const remedies = found.ok
          ? [
              {
                kind: 'set-fact',
                label: `Take ${found.value.fuseA} A`,
                part: fuse.part.id,
                key: 'fuseA',
                value: found.value.fuseA,
              } as const,
            ]
          : [];
        if (fuseA > cableAmps(areaMm2))
          report.find(
            'danger',
            `${fuse.part.label} is ${formatNumber(fuseA, 1)} A; the thinnest cable behind it, ${formatNumber(areaMm2, 2)} mm², bears ${formatNumber(cableAmps(areaMm2), 1)} A.`,
            [load],
            { remedies, ...(found.ok ? { worked: found.value.worked } : {}) },
          );
        else if (fuseA * 1000 < use.ma)
          report.find(
            'caution',
            `${fuse.part.label} is ${formatNumber(fuseA, 1)} A; everything at once takes ${inMa(use.ma)}.`,
            [load],
            { remedies, ...(found.ok ? { worked: found.value.worked } : {}) },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'cable-drop',
    title: 'No cable loses more than its part bears',
    why: 'A thin long cable starves a pump and shifts an analog reading by the voltage it loses.',
    run: (circuit, report) => {
      for (const cable of circuit.netlist.cables) {
        const ends = circuit.netlist.wires
          .filter((wire) => wire.cableId === cable.id)
          .flatMap((wire) => [wire.from, wire.to]);
        const fed = ends
          .map((end) => spotOf(circuit, end))
          .filter((spot): spot is Spot => spot !== null && isLoad(spot));
        const seen = new Set<Placed>();
        for (const spot of fed) {
          if (seen.has(spot.placed) || hasRole(spot.placed, 'board')) continue;
          seen.add(spot.placed);
          const volts = circuit.netOf(spot.end).level?.volts ?? null;
          const currentMa = fact(spot.placed, 'activeMa');
          if (cable.lengthM === null || cable.areaMm2 === null || volts === null || currentMa === null) {
            report.unknown(
              `What cable ${cable.label} to ${spot.placed.part.label} loses is not known: ${cable.lengthM === null ? 'its length' : cable.areaMm2 === null ? 'its cross-section' : 'a voltage or current'} is missing.`,
              [spot],
            );
            continue;
          }
          const drop = workCableDrop({ lengthM: cable.lengthM, currentMa, areaMm2: cable.areaMm2 });
          const analog = spot.placed.entry.terminals.some((one) => one.type === 'analog out');
          const mostDropV = analog ? 0.01 * volts : 0.05 * volts;
          if (drop.value > mostDropV) {
            const areaMm2 = thinnestCableMm2({ lengthM: cable.lengthM, currentMa, mostDropV });
            report.find(
              'caution',
              `Cable ${cable.label} (${formatNumber(cable.lengthM, 1)} m, ${formatNumber(cable.areaMm2, 2)} mm²) loses ${formatNumber(drop.value, 2)} V of ${inV(volts)} at ${inMa(currentMa)}; ${analog ? 'one percent is the most for an analog probe' : 'five percent is the most for a pump or module'}.`,
              [spot],
              {
                worked: drop,
                remedies:
                  areaMm2 === null
                    ? []
                    : [{ kind: 'set-area', label: `Take ${areaMm2} mm²`, cable: cable.id, areaMm2 }],
              },
            );
          } else report.fine();
        }
      }
    },
  },
];

function spotOf(circuit: Circuit, end: End): Spot | null {
  const placed = circuit.parts.get(end.part);
  return placed ? spotAt(placed, end.terminal) : null;
}

function judgeLoad(
  circuit: Circuit,
  source: Spot,
  report: Parameters<Check['run']>[1],
  limitWords: string,
): void {
  if (!isType(source, 'supply out')) return;
  const load = loadOfSupply(circuit, source);
  const own = hasRole(source.placed, 'board') ? fact(source.placed, 'regulatorMa') : null;
  const mostMa = source.terminal.maxMa === null ? own : Math.min(source.terminal.maxMa, own ?? Infinity);
  if (mostMa !== null && load.ma > mostMa)
    report.find(
      'fault',
      `${nameOf(source)} would carry ${inMa(load.ma)}${load.missing.length > 0 ? ' and more' : ''}; ${limitWords} ${inMa(mostMa)}.`,
      [source],
    );
  else if (mostMa === null || load.missing.length > 0)
    report.unknown(
      `Whether ${nameOf(source)} carries its load cannot be told: ${mostMa === null ? 'what it gives' : `the current of ${listOf(load.missing)}`} is not known.`,
      [source],
    );
  else report.fine();
}

/** The thinnest cable on the nets behind a supply, mm²; null when one has no cross-section or there is no cable at all. */
function thinnestBehind(circuit: Circuit, source: Spot): number | null {
  const from = circuit.netOf(source.end).level?.from ?? source;
  const cables = new Set(
    fedNets(circuit, from)
      .flatMap((net) => net.wires)
      .flatMap((wire) => (wire.cableId === null ? [] : [circuit.cables.get(wire.cableId)])),
  );
  const areas = [...cables].map((cable) => cable?.areaMm2 ?? null);
  return areas.includes(null) ? null : areas.length === 0 ? null : Math.min(...(areas as number[]));
}
