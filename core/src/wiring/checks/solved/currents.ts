/** Checks of currents, over the solutions: no source, pin, switch, diode or resistor carries more than it may. */
import { type Circuit, type Placed, type Spot, fact, hasRole, isType, spotAt } from '../../circuit.ts';
import type { Check } from '../../finding.ts';
import { inMa, inV, isWired, listOf, nameOf, partsWith } from '../../look.ts';
import type { Device } from '../../solve/law.ts';
import { most, solvedOf, type Solved } from '../../solve/solved.ts';
import type { Solution } from '../../solve/solve.ts';
import { fedNets, loadOfSupply, wiredSources } from '../../supplyLoad.ts';
import { workAcross, workAmps, workHeat, workVoltsAt } from '../../solve/working.ts';

/** Less than this through a pin is leakage, A. */
const LEAST_A = 1e-6;
/** A little over a limit is rounding. */
const OVER = 1.02;
/** What a resistor of the usual small size bears, W. */
const RESISTOR_W = 0.25;
/** What a small switch without a heat sink bears, W. */
const SWITCH_W = 1;

/** The device behind a supply output. */
const sourceDevice = (solved: Solved, source: Spot): Device | null =>
  solved.deviceOf(source.placed, 'itself') ?? solved.deviceOf(source.placed, `gives ${source.terminal.id}`);

const mostMaOf = (source: Spot): number | null => {
  if (!isType(source, 'supply out')) return null;
  const own = hasRole(source.placed, 'board') ? fact(source.placed, 'regulatorMa') : null;
  return source.terminal.maxMa === null ? own : Math.min(source.terminal.maxMa, own ?? Infinity);
};

/** Spots of the parts that carry most of what a source gives, the supplies themselves left out. */
function takers(circuit: Circuit, solved: Solved, at: Solution, source: Spot, shareA: number): Spot[] {
  const island = solved.mesh.islandOf[solved.mesh.nodeOf(source.end)];
  return [...circuit.parts.values()].flatMap((placed) => {
    if (placed === source.placed || hasRole(placed, 'battery', 'supply', 'fuse')) return [];
    const heavy = solved.mesh
      .devicesOf(placed.part.id)
      .some((device) => solved.mesh.islandOf[device.a] === island && Math.abs(at.ampsOf(device)) >= shareA);
    return heavy ? placed.spots.slice(0, 2) : [];
  });
}

export const CURRENT_CHECKS: readonly Check[] = [
  {
    id: 'regulator-load',
    title: 'No motor hangs on a board’s own supply',
    why: 'A small regulator on a board heats, drops its voltage and with it every reading. Pumps never hang there.',
    run: (circuit, report) => {
      for (const source of wiredSources(circuit)) {
        if (!hasRole(source.placed, 'board')) continue;
        const motors = fedNets(circuit, source)
          .flatMap((net) => net.spots)
          .filter((spot) => isType(spot, 'load') || hasRole(spot.placed, 'servo', 'latching valve'));
        if (motors.length > 0)
          report.find(
            'fault',
            `${listOf([...new Set(motors.map((spot) => spot.placed.part.label))])} hangs on ${nameOf(source)}, the board’s own supply. Feed motors and coils from the main supply.`,
            motors,
          );
        else report.fine();
      }
    },
  },
  {
    id: 'supply-load',
    title: 'Every supply can carry what hangs on it, and nothing shorts it',
    why: 'With all that may run at once, the start of a pump included, a weak supply sags and the board restarts, again and again.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const source of wiredSources(circuit)) {
        const device = sourceDevice(solved, source);
        const mostMa = mostMaOf(source);
        const { missing } = loadOfSupply(circuit, source);
        if (!device) continue;
        const highest = most(solved.all, (at) => -at.ampsOf(device) * 1000);
        const steady = solved.all.filter(({ situation }) => situation.kind !== 'start');
        const short = steady.find((at) => at.modeOf(device) === 'limit');
        if (short && missing.length === 0) {
          const by = takers(circuit, solved, short, source, -short.ampsOf(device) * 0.6);
          report.find(
            'danger',
            `${nameOf(source)} gives all it can, ${inMa(-short.ampsOf(device) * 1000)}, ${short.situation.when}${by.length > 0 ? `: most of it goes through ${listOf([...new Set(by.map((spot) => spot.placed.part.label))])}` : ''}. Something shorts it, or far too much hangs on it.`,
            [source, ...by],
            workAmps(short, [{ device, name: 'out of it' }], `Current of ${nameOf(source)}`),
          );
        } else if (
          highest &&
          mostMa !== null &&
          highest.value > mostMa * OVER - 0.5 &&
          highest.at.modeOf(device) === 'limit'
        )
          report.find(
            'fault',
            `${nameOf(source)} would have to give more than the ${inMa(mostMa)} it can ${highest.at.situation.when}.`,
            [source],
            workAmps(highest.at, [{ device, name: 'out of it' }], `Current of ${nameOf(source)}`),
          );
        else if (mostMa === null || missing.length > 0)
          report.unknown(
            `Whether ${nameOf(source)} carries its load cannot be told: ${mostMa === null ? 'what it gives' : `the current of ${listOf(missing)}`} is not known.`,
            [source],
          );
        else report.fine();
      }
    },
  },
  {
    id: 'fed-backwards',
    title: 'No supply is fed backwards',
    why: 'A higher voltage at its output destroys a regulator; a cell that is charged by anything but its charger can burn.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const source of wiredSources(circuit)) {
        const device = sourceDevice(solved, source);
        if (!device || device.law.kind !== 'source' || !isType(source, 'supply out')) continue;
        const ownV = source.terminal.volts;
        const above = most(solved.all, (at) => at.across(device.a, device.b));
        if (hasRole(source.placed, 'battery')) {
          const panels = partsWith(circuit, 'solar').flatMap(
            (panel) => solved.deviceOf(panel, 'itself') ?? [],
          );
          const charged = most(
            solved.all.filter(({ situation }) => situation.kind !== 'boot'),
            (at) => at.ampsOf(device) - panels.reduce((sum, panel) => sum - Math.min(0, at.ampsOf(panel)), 0),
          );
          if (charged && charged.value > 0.05)
            report.find(
              'danger',
              `${source.placed.part.label} would be charged with ${inMa(charged.value * 1000)} by something that is no charger for it. Lead-acid gasses, lithium burns.`,
              [source],
              workAmps(charged.at, [{ device, name: 'into it' }], `Current of ${source.placed.part.label}`),
            );
          else report.fine();
        } else if (ownV !== null && above && above.value > ownV + 0.3)
          report.find(
            'danger',
            `${nameOf(source)} stands at ${inV(above.value)} ${above.at.situation.when}, above its own ${inV(ownV)}: something feeds it backwards.`,
            [source],
            workVoltsAt(solved, above.at, source),
          );
        else report.fine();
      }
    },
  },
  {
    id: 'pin-current',
    title: 'No pin gives more current than it may',
    why: 'Above its limit the pin’s voltage sags and its driver burns.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const { pin, spots } of solved.situations.uses) {
        const device = solved.deviceOf(pin.placed, `drives ${pin.terminal.id}`);
        if (!device) continue;
        const limit = fact(pin.placed, 'pinMa');
        const highest = most(solved.all, (at) => Math.abs(at.ampsOf(device)) * 1000);
        const missing = spots.filter(
          (spot) =>
            isType(spot, 'supply in') &&
            fact(spot.placed, 'activeMa') === null &&
            fact(spot.placed, 'peakMa') === null,
        );
        if (!highest || highest.value < 0.001) continue;
        if (limit === null || missing.length > 0)
          report.unknown(`What is drawn from ${nameOf(pin)}, or what it may give, is not known.`, [pin]);
        else if (highest.value > limit * OVER)
          report.find(
            'fault',
            `${nameOf(pin)} would carry ${inMa(highest.value)} ${highest.at.situation.when}; it may give ${inMa(limit)}.`,
            [pin, ...spots],
            {
              isConsequence: true,
              ...workAmps(highest.at, [{ device, name: 'through the pin' }], `Current of ${nameOf(pin)}`),
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'pins-total',
    title: 'All pins of a board together stay within its limit',
    why: 'The chip has a limit for the sum as well, often far below pins times limit.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const board of partsWith(circuit, 'board', 'expander')) {
        const used = solved.situations.uses.filter(({ pin }) => pin.placed === board);
        const devices = used.flatMap(({ pin }) => {
          const device = solved.deviceOf(board, `drives ${pin.terminal.id}`);
          return device ? [{ device, name: nameOf(pin) }] : [];
        });
        const limit = fact(board, 'pinsTotalMa');
        const total = most(solved.all, (at) =>
          devices.reduce((sum, { device }) => sum + Math.max(0, -at.ampsOf(device)) * 1000, 0),
        );
        if (!total || total.value < 0.01) continue;
        const spots = used.map(({ pin }) => pin);
        if (limit === null)
          report.unknown(`What all pins of ${board.part.label} may give together is not known.`, spots);
        else if (total.value > limit * OVER)
          report.find(
            'fault',
            `The pins of ${board.part.label} would give ${inMa(total.value)} together; the board allows ${inMa(limit)}.`,
            spots,
            workAmps(
              total.at,
              devices.filter(({ device }) => total.at.ampsOf(device) < -LEAST_A),
              `Current of all pins of ${board.part.label}`,
            ),
          );
        else report.fine();
      }
    },
  },
  {
    id: 'heat',
    title: 'Nothing small turns into a heater',
    why: 'A resistor of the usual size bears a quarter of a watt, a small switch about one; above that they char.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      const steady = solved.all.filter(({ situation }) => situation.kind !== 'start');
      for (const placed of partsWith(circuit, 'resistor', 'divider', 'battery monitor', 'shunt', 'pull-ups'))
        judgeHeat(placed, solved, steady, RESISTOR_W);
      for (const placed of partsWith(circuit, 'MOSFET', 'transistor', 'driver module'))
        judgeHeat(placed, solved, steady, SWITCH_W);

      function judgeHeat(placed: Placed, { mesh }: Solved, at: readonly Solution[], bearsW: number): void {
        const devices = mesh.devicesOf(placed.part.id).filter(({ name }) => !/^(input|feed)/.test(name));
        const heatOf = (one: Solution, device: Device) => one.ampsOf(device) * one.across(device.a, device.b);
        const hottest = most(at, (one) => Math.max(0, ...devices.map((device) => heatOf(one, device))));
        if (!hottest) return;
        if (hottest.value > bearsW)
          report.find(
            hottest.value > 4 * bearsW ? 'fault' : 'caution',
            `${placed.part.label} turns ${inW(hottest.value)} into heat ${hottest.at.situation.when}; one of the usual size bears ${inW(bearsW)}.`,
            placed.spots.slice(0, 2),
            {
              worked: workHeat(
                hottest.at,
                devices.reduce((one, other) =>
                  heatOf(hottest.at, other) > heatOf(hottest.at, one) ? other : one,
                ),
                `Heat in ${placed.part.label}`,
              ),
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'half-on',
    title: 'Every switch is either on or off',
    why: 'Half on it carries the current and keeps half the voltage: it heats, and the pump limps.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const placed of partsWith(circuit, 'MOSFET', 'driver module', 'transistor')) {
        const channel = solved.deviceOf(placed, 'channel') ?? solved.deviceOf(placed, 'collector');
        if (!channel) continue;
        const half = solved.all.find(
          (at) =>
            at.situation.kind === 'one on' &&
            (at.modeOf(channel) === 'half' ||
              (at.modeOf(channel) === 'active' && at.across(channel.a, channel.b) > 0.7)) &&
            at.ampsOf(channel) > 0.005,
        );
        const control = placed.spots.find((spot) => isType(spot, 'control') || isType(spot, 'digital in'));
        if (half)
          report.find(
            'fault',
            `${placed.part.label} is only half on ${half.situation.when}: ${inV(half.across(channel.a, channel.b))} stays across it. ${isType(control as Spot, 'control') && hasRole(placed, 'transistor') ? 'Its base wants more current: a smaller base resistor.' : 'Its input wants more voltage.'}`,
            control ? [control, ...placed.spots.filter((spot) => isType(spot, 'switched'))] : placed.spots,
            {
              worked: workAcross(
                solved.mesh,
                half,
                [channel.a, channel.b],
                `Voltage across ${placed.part.label}`,
              ),
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'diode-current',
    title: 'No diode carries more than it may',
    why: 'A diode the wrong way round shorts the supply through the switch.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const diode of partsWith(circuit, 'diode')) {
        const device = solved.deviceOf(diode, 'itself');
        const limit = fact(diode, 'switchedMa');
        if (!device || limit === null) continue;
        const highest = most(solved.all, (at) => at.ampsOf(device) * 1000);
        const [anode, cathode] = [spotAt(diode, 'anode'), spotAt(diode, 'cathode')];
        const spots = [anode, cathode].flatMap((spot) => (spot && isWired(circuit, spot) ? [spot] : []));
        // In a feed it carries what hangs on it, which may be more for an instant.
        const bears = highest?.at.situation.kind === 'start' ? 3 * limit : limit;
        if (highest && highest.value > bears * OVER)
          report.find(
            'danger',
            `${diode.part.label} would carry ${inMa(highest.value)} ${highest.at.situation.when}; it bears ${inMa(limit)}. Across a motor its ring goes to plus.`,
            spots,
            {
              remedies:
                anode && cathode
                  ? [{ kind: 'swap', label: 'Turn it round', one: anode.end, other: cathode.end }]
                  : [],
              ...workAmps(highest.at, [{ device, name: 'through it' }], `Current of ${diode.part.label}`),
            },
          );
        else report.fine();
      }
    },
  },
  {
    id: 'body-diode',
    title: 'No MOSFET or transistor is the wrong way round',
    why: 'Turned round, a MOSFET conducts through its own diode: what hangs on it is always on.',
    run: (circuit, report) => {
      const solved = solvedOf(circuit);
      for (const placed of partsWith(circuit, 'MOSFET', 'driver module', 'transistor')) {
        const body = solved.deviceOf(placed, 'body') ?? solved.deviceOf(placed, 'wrong way');
        if (!body) continue;
        const through = most(solved.all, (at) => at.ampsOf(body));
        const [one, other] = hasRole(placed, 'transistor')
          ? [spotAt(placed, 'collector'), spotAt(placed, 'emitter')]
          : [
              spotAt(placed, 'drain') ?? spotAt(placed, 'load'),
              spotAt(placed, 'source') ?? spotAt(placed, 'gnd'),
            ];
        if (through && through.value > 0.002)
          report.find(
            'fault',
            `${placed.part.label} is the wrong way round: ${inMa(through.value * 1000)} flows backwards through it ${through.at.situation.when}.`,
            [one, other].flatMap((spot) => spot ?? []),
            {
              remedies:
                one && other
                  ? [{ kind: 'swap', label: 'Turn it round', one: one.end, other: other.end }]
                  : [],
              ...workAmps(
                through.at,
                [{ device: body, name: 'backwards through it' }],
                `Current of ${placed.part.label}`,
              ),
            },
          );
        else report.fine();
      }
    },
  },
];

const inW = (watts: number): string =>
  watts < 1 ? `${Math.round(watts * 1000)} mW` : `${watts.toFixed(watts < 10 ? 1 : 0)} W`;
