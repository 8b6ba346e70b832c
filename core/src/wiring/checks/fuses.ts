/** Checks of fuses: every way out of a battery has one, it protects the thinnest cable behind it, and it bears what runs through it. */
import { CABLE_SIZES_MM2, cableAmps } from '../../electrics/cable.ts';
import { fuseFor } from '../../electrics/fuse.ts';
import { formatNumber } from '../../quantity/format.ts';
import { type Circuit, type Net, type Placed, type Spot, fact, hasRole, isType, spotAt } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import { inMa, isWired, listOf, others, partsWith } from '../look.ts';
import type { Cable, Wire } from '../netlist.ts';
import { most, solvedOf } from '../solve/solved.ts';
import { loadOfSupply } from '../supplyLoad.ts';

/** Parts that sit at the battery itself and pass next to nothing on. */
const HOLDS_BACK = ['battery monitor', 'divider', 'resistor', 'LED', 'pull-ups'] as const;

/** What lies behind a spot before the next fuse: the wires on the way, and the parts that take something there. */
type Way = { readonly wires: readonly Wire[]; readonly parts: readonly Placed[] };

/** Ways on through a part that hands current on as it is: contacts, channels, motors, diodes. What makes a supply of its own limits it by itself. */
function onward({ placed, terminal }: Spot): readonly Spot[] {
  if (hasRole(placed, 'fuse', 'board', 'regulator', 'supply', 'battery', 'solar', ...HOLDS_BACK)) return [];
  const passes = ['load', 'lead', 'switched', 'loop'];
  return passes.includes(terminal.type)
    ? placed.spots.filter(
        (spot) =>
          spot !== placed.spots.find((one) => one.terminal.id === terminal.id) &&
          passes.includes(spot.terminal.type),
      )
    : [];
}

function wayBehind(circuit: Circuit, from: Spot): Way {
  const wires: Wire[] = [];
  const parts = new Set<Placed>();
  const seen = new Set<Net>();
  const visit = (at: Spot) => {
    const net = circuit.netOf(at.end);
    // Ground is where the way ends.
    if (seen.has(net) || net.spots.some((spot) => isType(spot, 'ground') && !hasRole(spot.placed, 'contact')))
      return;
    seen.add(net);
    wires.push(...net.wires);
    for (const spot of net.spots) {
      if (spot.placed === from.placed) continue;
      if (!hasRole(spot.placed, 'fuse')) parts.add(spot.placed);
      for (const next of onward(spot)) visit(next);
    }
  };
  visit(from);
  return { wires, parts: [...parts] };
}

const cablesOf = (circuit: Circuit, { wires }: Way): Cable[] => [
  ...new Set(
    wires.flatMap((wire) => (wire.cableId === null ? [] : (circuit.cables.get(wire.cableId) ?? []))),
  ),
];

/** The end of a fuse that the supply is on, and the one that everything hangs on. */
function sidesOf(circuit: Circuit, fuse: Placed): { readonly near: Spot; readonly far: Spot } | null {
  const [a, b] = [spotAt(fuse, 'a'), spotAt(fuse, 'b')];
  if (!a || !b) return null;
  const feeds = (spot: Spot) =>
    others(circuit, spot).some((one) => hasRole(one.placed, 'battery') && isType(one, 'supply out'));
  return feeds(b) && !feeds(a) ? { near: b, far: a } : { near: a, far: b };
}

export const FUSE_CHECKS: readonly Check[] = [
  {
    id: 'fuse-missing',
    title: 'Every way out of a battery has a fuse',
    why: 'A battery gives hundreds of amperes into a short: the cable glows before it does anything else. The panel’s cable is one of its ways, too.',
    run: (circuit, report) => {
      for (const battery of partsWith(circuit, 'battery')) {
        const plus = spotAt(battery, 'plus');
        if (!plus || !isWired(circuit, plus)) continue;
        const bare = [...new Set(others(circuit, plus).map((spot) => spot.placed))].filter(
          (placed) => !hasRole(placed, 'battery', 'fuse', ...HOLDS_BACK),
        );
        if (bare.length === 0) {
          report.fine();
          continue;
        }
        const spots = bare.flatMap(({ spots: own }) => own.slice(0, 1));
        const load = loadOfSupply(circuit, plus);
        const areas = cablesOf(circuit, wayBehind(circuit, plus)).map((cable) => cable.areaMm2);
        const found = fuseFor({
          currentMa: Math.max(load.ma, 100),
          areaMm2: Math.min(
            ...areas.flatMap((area) => area ?? []),
            ...(areas.some((area) => area !== null) ? [] : [0.5]),
          ),
        });
        const fuseA = found.ok ? found.value.fuseA : 3;
        report.find(
          'danger',
          `${battery.part.label} feeds ${listOf([...new Set(bare.map((placed) => placed.part.label))])} without a fuse.`,
          [plus, ...spots],
          {
            ...(found.ok ? { worked: found.value.worked } : {}),
            remedies: fuseRemedies(circuit, plus, bare, fuseA),
          },
        );
      }
    },
  },
  {
    id: 'fuse-size',
    title: 'Every fuse protects its cable and bears its load',
    why: 'Too small and it blows when the pump starts; too large and the cable is the fuse.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const fuse of partsWith(circuit, 'fuse')) {
        const sides = sidesOf(circuit, fuse);
        if (!sides || !isWired(circuit, sides.near) || !isWired(circuit, sides.far)) continue;
        const { far } = sides;
        const fuseA = fact(fuse, 'fuseA');
        // The short wire from the battery to its fuse is part of the holder; what is behind it counts.
        const cables = cablesOf(circuit, wayBehind(circuit, far));
        const areas = cables.map((cable) => cable.areaMm2);
        const source = circuit.netOf(far.end).level?.from;
        const missing = source ? loadOfSupply(circuit, source).missing : [];
        if (areas.includes(null) || missing.length > 0) {
          report.unknown(
            `Whether ${fuse.part.label} fits cannot be told: ${areas.includes(null) ? 'the cross-section of a cable behind it' : `the current of ${listOf(missing)}`} is not known.`,
            [far],
          );
          continue;
        }
        const device = solved.deviceOf(fuse, 'itself');
        const flows = device && most(solved.all, (at) => Math.abs(at.ampsOf(device)) * 1000);
        const lasting =
          device &&
          most(
            solved.all.filter(({ situation }) => situation.kind !== 'start'),
            (at) => Math.abs(at.ampsOf(device)) * 1000,
          );
        const areaMm2 = areas.length === 0 ? null : Math.min(...(areas as number[]));
        const found = fuseFor({
          currentMa: Math.max((flows?.value ?? 0) * 0.75, lasting?.value ?? 0),
          areaMm2: areaMm2 ?? 10,
        });
        const about = {
          remedies: found.ok
            ? [
                {
                  kind: 'set-fact',
                  label: `Take ${formatNumber(found.value.fuseA, found.value.fuseA % 1 === 0 ? 0 : 1)} A`,
                  part: fuse.part.id,
                  key: 'fuseA',
                  value: found.value.fuseA,
                } as const,
              ]
            : thicker(cables, found.issue.neededA),
          ...(found.ok ? { worked: found.value.worked } : {}),
        };
        if (fuseA === null)
          report.unknown(
            `Whether ${fuse.part.label} fits cannot be told: its rating is not known.`,
            [far],
            about,
          );
        else if (areaMm2 !== null && fuseA > cableAmps(areaMm2))
          report.find(
            'danger',
            `${fuse.part.label} is ${formatNumber(fuseA, 1)} A; the thinnest cable behind it, ${formatNumber(areaMm2, 2)} mm², bears ${formatNumber(cableAmps(areaMm2), 1)} A.`,
            [far],
            about,
          );
        else if (flows && fuseA * 1000 < flows.value)
          report.find(
            'caution',
            `${fuse.part.label} is ${formatNumber(fuseA, 1)} A; ${inMa(flows.value)} flow through it ${flows.at.situation.when}.`,
            [far],
            about,
          );
        else report.fine();
      }
    },
  },
];

/** Cables that the fuse which the load needs cannot protect, made thick enough for it. */
function thicker(cables: readonly Cable[], neededA: number): Remedy[] {
  return cables.flatMap((cable): Remedy[] => {
    const areaMm2 = CABLE_SIZES_MM2.find((size) => cableAmps(size) >= neededA);
    return areaMm2 !== undefined && cable.areaMm2 !== null && cableAmps(cable.areaMm2) < neededA
      ? [{ kind: 'set-area', label: `Take ${areaMm2} mm² for ${cable.label}`, cable: cable.id, areaMm2 }]
      : [];
  });
}

/** A fuse behind the plus for everything, where none is there; where one is, what by-passes it goes behind it. */
function fuseRemedies(circuit: Circuit, plus: Spot, bare: readonly Placed[], fuseA: number): Remedy[] {
  const held = others(circuit, plus).find((spot) => hasRole(spot.placed, 'fuse'));
  const rating = formatNumber(fuseA, fuseA % 1 === 0 ? 0 : 1);
  if (!held)
    return [
      {
        kind: 'insert',
        label: `Put a ${rating} A fuse behind its plus`,
        entryId: 'fuse',
        at: plus.end,
        inTerminal: 'b',
        outTerminal: 'a',
        ground: null,
        settings: { fuseA },
      },
    ];
  const behind = spotAt(held.placed, held.terminal.id === 'a' ? 'b' : 'a');
  const direct = circuit
    .netOf(plus.end)
    .spots.filter((spot) => bare.includes(spot.placed) && !hasRole(spot.placed, 'fuse', 'battery'));
  if (!behind) return [];
  // A panel gets a fuse of its own, for its cable is another; everything else goes behind the fuse that is there.
  return direct.map((spot): Remedy =>
    hasRole(spot.placed, 'solar')
      ? {
          kind: 'insert',
          label: `Put a ${rating} A fuse before ${spot.placed.part.label}`,
          entryId: 'fuse',
          at: spot.end,
          inTerminal: 'a',
          outTerminal: 'b',
          ground: null,
          settings: { fuseA },
        }
      : {
          kind: 'feed',
          label: `Feed ${spot.placed.part.label} from behind ${held.placed.part.label}`,
          at: spot.end,
          from: behind.end,
        },
  );
}
