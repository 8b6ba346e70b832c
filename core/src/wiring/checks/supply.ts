/** Checks of supplies: is everything fed and grounded, with the right voltage, by something that can, through a fuse and a cable that bear it. */
import { cableAmps, thinnestCableMm2, workCableDrop } from '../../electrics/cable.ts';
import { fuseFor } from '../../electrics/fuse.ts';
import { formatNumber } from '../../quantity/format.ts';
import {
  fact,
  hasRole,
  isType,
  spotAt,
  spotsOf,
  type Circuit,
  type Net,
  type Placed,
  type Spot,
} from '../circuit.ts';
import type { Check } from '../finding.ts';
import type { End } from '../netlist.ts';
import {
  allSpots,
  drawMa,
  feederOf,
  inMa,
  inV,
  isWired,
  listOf,
  nameOf,
  others,
  partsWith,
} from '../look.ts';

const isLoad = (spot: Spot) =>
  spot.terminal.type === 'supply in' ||
  spot.terminal.type === 'load' ||
  (spot.terminal.type === 'loop' && spot.terminal.side === 'plus');

/**
 * Everything that hangs on a supply output, mA: parts on its nets, and for a board or regulator among them what it hands on as well.
 * Null when a current is not known; `missing` names the parts.
 */
export function loadOfSupply(
  circuit: Circuit,
  source: Spot,
  seen: ReadonlySet<Placed> = new Set(),
): { ma: number; missing: readonly string[] } {
  let ma = 0;
  const missing: string[] = [];
  const counted = new Set<Placed>();
  const add = (more: { ma: number; missing: readonly string[] }, factor = 1) => {
    ma += more.ma * factor;
    missing.push(...more.missing);
  };
  for (const net of fedNets(circuit, source))
    for (const spot of net.spots) {
      const { placed } = spot;
      if (!isLoad(spot) || counted.has(placed) || seen.has(placed) || placed === source.placed) continue;
      // A pump's minus sits at the supply's voltage too, through the motor; the part counts once.
      counted.add(placed);
      const own = drawMa(placed);
      if (own === null) missing.push(placed.part.label);
      else ma += own;
      for (const out of spotsOf(placed))
        if (isType(out, 'supply out')) {
          // A step-down regulator takes less current at its higher input; nine tenths of the power arrive.
          const inV = circuit.netOf(spot.end).level?.volts ?? null;
          const factor =
            hasRole(placed, 'regulator') && inV !== null && out.terminal.volts !== null
              ? out.terminal.volts / inV / 0.9
              : 1;
          add(loadOfSupply(circuit, out, new Set([...seen, source.placed, placed])), factor);
        }
    }
  return { ma, missing };
}

/** The nets a supply output feeds: its own, and those behind fuses and closed contacts. */
export function fedNets(circuit: Circuit, source: Spot): Net[] {
  return circuit.nets.filter((net) => {
    const from = net.level?.from;
    return from?.placed === source.placed && from.terminal.id === source.terminal.id;
  });
}

const wiredSources = (circuit: Circuit): Spot[] =>
  allSpots(circuit).filter((spot) => spot.terminal.type === 'supply out' && isWired(circuit, spot));

export const SUPPLY_CHECKS: readonly Check[] = [
  {
    id: 'unpowered',
    title: 'Every part has its supply and its ground',
    why: 'A part with one of the two missing reads nothing, or feeds itself through its signal wire and reads nonsense.',
    run: (circuit, report) => {
      for (const placed of circuit.parts.values())
        for (const spot of spotsOf(placed)) {
          const { type } = spot.terminal;
          const needs = type === 'supply in' || type === 'ground' || type === 'load' || type === 'loop';
          if (!needs || hasRole(placed, 'supply', 'battery')) continue;
          if (
            isWired(circuit, spot) &&
            (type === 'ground' || circuit.netOf(spot.end).level !== null || type === 'load')
          )
            report.fine();
          else {
            const from = supplyToSuggest(circuit, spot);
            report.find(
              'fault',
              isWired(circuit, spot)
                ? `${nameOf(spot)} is wired, but nothing feeds it.`
                : `${nameOf(spot)} is not wired.`,
              [spot],
              {
                remedies:
                  from && !isWired(circuit, spot)
                    ? [
                        {
                          kind: 'add-wire',
                          label: `Wire it to ${nameOf(from)}`,
                          from: from.end,
                          to: spot.end,
                        },
                      ]
                    : [],
              },
            );
          }
        }
    },
  },
  {
    id: 'supply-range',
    title: 'Every part gets a voltage it is made for',
    why: 'Too much kills it, too little makes it read low, and a probe that follows its supply reads low without a sign.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        if (!isType(spot, 'supply in')) continue;
        const { level } = circuit.netOf(spot.end);
        if (!level) continue;
        const { minV, maxV } = spot.terminal;
        if (level.volts === null || minV === null || maxV === null)
          report.unknown(`Which voltage ${spot.placed.part.label} gets or wants is not known.`, [spot]);
        else if (level.volts > maxV + 0.05)
          report.find(
            'fault',
            `${spot.placed.part.label} bears ${inV(maxV)} and gets ${inV(level.volts)} from ${nameOf(level.from)}.`,
            [spot, level.from],
            { remedies: feedInstead(circuit, spot) },
          );
        else if (level.volts < minV - 0.05)
          report.find(
            'fault',
            `${spot.placed.part.label} wants at least ${inV(minV)} and gets ${inV(level.volts)} from ${nameOf(level.from)}.`,
            [spot, level.from],
            { remedies: feedInstead(circuit, spot) },
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
      for (const load of partsWith(circuit, 'pump', 'valve')) {
        const plus = spotAt(load, 'plus');
        if (!plus || !isWired(circuit, plus)) continue;
        const volts = circuit.netOf(plus.end).level?.volts ?? null;
        const ratedV = fact(load, 'ratedV');
        if (volts === null || ratedV === null)
          report.unknown(`The voltage of ${load.part.label}, or what feeds it, is not known.`, [plus]);
        else if (Math.abs(volts - ratedV) > 0.25 * ratedV)
          report.find('fault', `${load.part.label} is made for ${inV(ratedV)} and gets ${inV(volts)}.`, [
            plus,
          ]);
        else report.fine();
      }
    },
  },
  {
    id: 'supplies-joined',
    title: 'No two supplies are joined',
    why: 'The higher one feeds into the lower one, and one of them burns.',
    run: (circuit, report) => {
      for (const net of circuit.nets) {
        const sources = net.spots.filter((spot) => spot.terminal.type === 'supply out');
        if (sources.length > 1)
          report.find('danger', `${listOf(sources.map(nameOf))} are wired together.`, sources);
        else if (sources.length === 1 && net.wires.length > 0) report.fine();
      }
    },
  },
  {
    id: 'short',
    title: 'No supply is wired to ground',
    why: 'A short: fuse, cable or battery go, in that order if there is a fuse.',
    run: (circuit, report) => {
      for (const net of circuit.nets) {
        const sources = net.spots.filter(
          (spot) => spot.terminal.type === 'supply out' || spot.terminal.type === 'supply in',
        );
        const grounds = net.spots.filter((spot) => spot.terminal.type === 'ground');
        if (sources.length > 0 && grounds.length > 0)
          report.find(
            'danger',
            `${nameOf(sources[0] as Spot)} is wired to ${nameOf(grounds[0] as Spot)}: a short.`,
            [...sources, ...grounds],
          );
        else if (sources.length > 0 && net.wires.length > 0) report.fine();
      }
    },
  },
  {
    id: 'common-ground',
    title: 'Everything that is joined by a signal shares one ground',
    why: 'A voltage is a difference: without a common ground a signal means nothing and its current finds another way.',
    run: (circuit, report) => {
      const told = new Set<string>();
      for (const wire of circuit.netlist.wires) {
        const one = circuit.parts.get(wire.from.part);
        const other = circuit.parts.get(wire.to.part);
        if (!one || !other || one === other) continue;
        const grounds = [groundNets(circuit, one), groundNets(circuit, other)] as const;
        const signal = [one, other].some((placed) =>
          spotsOf(placed).some((spot) =>
            spot.end.part === wire.from.part
              ? spot.terminal.id === wire.from.terminal && isSignal(spot)
              : spot.terminal.id === wire.to.terminal && spot.end.part === wire.to.part && isSignal(spot),
          ),
        );
        if (grounds[0].length === 0 || grounds[1].length === 0 || !signal) continue;
        const pair = grounds
          .map((nets) => circuit.nets.indexOf(nets[0] as Net))
          .sort()
          .join(' ');
        if (grounds[0].some((net) => grounds[1].includes(net))) report.fine();
        else if (!told.has(pair)) {
          told.add(pair);
          const ends = [groundEnd(one), groundEnd(other)].flatMap((spot) => (spot ? [spot] : []));
          report.find(
            'fault',
            `${one.part.label} and ${other.part.label} are joined by a signal but have no ground in common.`,
            ends,
            {
              remedies:
                ends[0] && ends[1]
                  ? [{ kind: 'add-wire', label: 'Join their grounds', from: ends[0].end, to: ends[1].end }]
                  : [],
            },
          );
        }
      }
    },
  },
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
    why: 'With everything on at once, the start of a pump included, a weak supply sags and the board starts anew, again and again.',
    run: (circuit, report) => {
      for (const source of wiredSources(circuit))
        if (!hasRole(source.placed, 'board')) judgeLoad(circuit, source, report, 'it gives at most');
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

const isSignal = (spot: Spot) =>
  !['supply in', 'supply out', 'ground', 'load', 'lead', 'switched', 'mains', 'loop'].includes(
    spot.terminal.type,
  );
const groundEnd = (placed: Placed): Spot | null =>
  spotsOf(placed).find((spot) => spot.terminal.type === 'ground') ?? null;
const groundNets = (circuit: Circuit, placed: Placed): Net[] =>
  spotsOf(placed)
    .filter((spot) => spot.terminal.type === 'ground')
    .map((spot) => circuit.netOf(spot.end));

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

/** A supply that suits an unwired terminal: the first output in range, or a ground. */
function supplyToSuggest(circuit: Circuit, spot: Spot): Spot | null {
  if (spot.terminal.type === 'ground') {
    const board = spot.placed.part.boardId === null ? null : circuit.parts.get(spot.placed.part.boardId);
    const at = board ?? partsWith(circuit, 'board', 'supply', 'battery').find((one) => one !== spot.placed);
    return at ? groundEnd(at) : null;
  }
  return isType(spot, 'supply in') ? (suiting(circuit, spot)[0] ?? null) : null;
}

/** Outputs whose voltage a supply input is made for, its own board's first. */
function suiting(circuit: Circuit, spot: Spot): Spot[] {
  if (!isType(spot, 'supply in')) return [];
  const { minV, maxV } = spot.terminal;
  return allSpots(circuit)
    .filter(
      (out) =>
        isType(out, 'supply out') &&
        out.placed !== spot.placed &&
        out.terminal.volts !== null &&
        out.terminal.volts >= (minV ?? Infinity) - 0.05 &&
        out.terminal.volts <= (maxV ?? -Infinity) + 0.05,
    )
    .sort(
      (one, other) =>
        Number(other.placed.part.id === spot.placed.part.boardId) -
        Number(one.placed.part.id === spot.placed.part.boardId),
    );
}

function feedInstead(circuit: Circuit, spot: Spot) {
  const [from] = suiting(circuit, spot).filter((one) => feederOf(circuit.netOf(spot.end))?.end !== one.end);
  return from
    ? [{ kind: 'feed', label: `Feed it from ${nameOf(from)}`, at: spot.end, from: from.end } as const]
    : [];
}
