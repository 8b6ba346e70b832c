/** Every situation a wiring is solved in, made from what its pins lead to. */
import {
  type Circuit,
  type Placed,
  type Spot,
  fact,
  hasRole,
  isBareSensor,
  isType,
  otherLead,
} from '../circuit.ts';
import { allSpots, nameOf, partsWith, type PinSpot } from '../look.ts';
import { endKey } from '../netlist.ts';
import type { PinDoes, Situation } from './situation.ts';

/** What a pin is for, told from what hangs on its net, or behind resistors, LEDs and the lines of a level shifter. */
export type PinUse = {
  readonly pin: PinSpot;
  readonly use: 'drives' | 'reads a voltage' | 'reads on and off' | 'bus' | 'nothing';
  /** What it drives or reads. */
  readonly spots: readonly Spot[];
};

/** Terminals that a pin sets. */
const DRIVEN = new Set(['digital in', 'uart in', 'control', 'supply in', 'load']);
/** Ways through which a pin reaches what it is for. */
const farEnds = ({ placed, terminal }: Spot): readonly string[] => {
  if (hasRole(placed, 'resistor')) return [terminal.id === 'a' ? 'b' : 'a'];
  if (hasRole(placed, 'LED', 'diode')) return [terminal.id === 'anode' ? 'cathode' : 'anode'];
  if (hasRole(placed, 'level shifter') && /^[hl]v\d$/.test(terminal.id))
    return [`${terminal.id.startsWith('h') ? 'l' : 'h'}${terminal.id.slice(1)}`];
  return [];
};

/** What makes a net a rail, on which everything hangs: a supply, its fuse, a ground. The second wire of a switch is none. */
const isOfRail = ({ placed, terminal }: Spot): boolean =>
  terminal.type === 'supply out' ||
  (terminal.type === 'ground' && !hasRole(placed, 'contact')) ||
  hasRole(placed, 'fuse', 'solar');

/** Everything that a pin's net leads to, as far as the next supply or ground. */
export function reachedFrom(
  circuit: Circuit,
  pin: Spot,
  cameFrom: Spot | null = null,
): { readonly spots: readonly Spot[]; readonly lamps: readonly Spot[] } {
  const spots: Spot[] = [];
  const lamps: Spot[] = [];
  const seen = new Set<object>(cameFrom ? [circuit.netOf(cameFrom.end)] : []);
  const visit = (at: Spot) => {
    const net = circuit.netOf(at.end);
    if (seen.has(net)) return;
    seen.add(net);
    // A supply or ground is where a way ends: everything hangs on those.
    const isRail = net.spots.some(isOfRail);
    for (const spot of net.spots) {
      if (spot.placed === pin.placed) continue;
      if (!isRail) spots.push(spot);
      if (isRail) continue;
      for (const far of farEnds(spot)) {
        const end = spot.placed.spots.find((one) => one.terminal.id === far);
        if (!end) continue;
        if (hasRole(spot.placed, 'LED')) lamps.push(spot);
        visit(end);
      }
    }
  };
  visit(pin);
  return { spots, lamps };
}

/** Either wire of a float or rain switch: which goes where is the person's choice. */
const isOfContact = ({ placed }: Spot): boolean => hasRole(placed, 'contact');

/** The upper one of two plain resistors that bring a voltage above the pin's own down to it; null where there are none. */
function plainDivider(circuit: Circuit, pin: Spot): Spot | null {
  const logicV = fact(pin.placed, 'logicV') ?? 3.3;
  const resistors = circuit.netOf(pin.end).spots.filter((spot) => hasRole(spot.placed, 'resistor'));
  const far = (spot: Spot) =>
    circuit.netOf({ part: spot.end.part, terminal: spot.terminal.id === 'a' ? 'b' : 'a' });
  const toGround = resistors.some((spot) => far(spot).spots.some((one) => isType(one, 'ground')));
  const fromRail = resistors.find((spot) => {
    const { spots, level } = far(spot);
    const isGround = spots.some((one) => isType(one, 'ground'));
    return !isGround && spots.some(isOfRail) && level !== null && (level.volts ?? Infinity) > 1.1 * logicV;
  });
  return toGround ? (fromRail ?? null) : null;
}

/** The lead of a bare sensor that goes to an input: not the one on a supply or ground. */
export const isBareSignal = (circuit: Circuit, spot: Spot): boolean =>
  isBareSensor(spot.placed) &&
  !circuit.netOf(spot.end).spots.some(isOfRail) &&
  (spot.terminal.id === 'b' || circuit.netOf((otherLead(spot) ?? spot).end).spots.some(isOfRail));

/** Terminals that want a pin to themselves, whichever way the signal goes; a bus counts once. */
const CLIENTS = new Set([...DRIVEN, 'analog out', 'digital out', 'uart out', 'open drain', 'loop']);
const isClient = (spot: Spot): boolean =>
  isOfContact(spot) ||
  isBareSensor(spot.placed) ||
  (spot.terminal.type === 'supply in' ? spot.placed.part.perReading : CLIENTS.has(spot.terminal.type)) ||
  (hasRole(spot.placed, 'divider', 'battery monitor') && spot.terminal.id === 'out');

export type Client = {
  readonly spot: Spot;
  /** Its end at the pin: of a gate behind a resistor the resistor's. */
  readonly near: Spot;
};

/** Who uses a pin: what is wired to it, and what it leads to through resistors and lamps; of each branch the first. */
export function clientsOf(circuit: Circuit, pin: Spot): Client[] {
  const found: Client[] = [];
  const add = (spot: Spot | undefined, near: Spot) => {
    if (spot && !found.some((one) => one.spot.placed === spot.placed)) found.push({ spot, near });
  };
  for (const spot of circuit.netOf(pin.end).spots) {
    if (spot.placed === pin.placed) continue;
    if (isClient(spot)) add(spot, spot);
    const [far] = farEnds(spot);
    const end = far === undefined ? undefined : spot.placed.spots.find((one) => one.terminal.id === far);
    if (!end) continue;
    if (hasRole(spot.placed, 'LED')) add(spot, spot);
    else {
      const { spots, lamps } = reachedFrom(circuit, end, pin);
      add(lamps[0] ?? spots.find(isClient), spot);
    }
  }
  const divided = plainDivider(circuit, pin);
  if (divided) add(divided, divided);
  const bus = circuit.netOf(pin.end).spots.find((spot) => isType(spot, 'i2c') || isType(spot, 'one-wire'));
  return bus ? [...found, { spot: bus, near: bus }] : found;
}

const ANALOG = new Set(['analog out', 'loop']);
const isAnalog = (spot: Spot): boolean =>
  ANALOG.has(spot.terminal.type) ||
  isBareSensor(spot.placed) ||
  (hasRole(spot.placed, 'divider', 'battery monitor', 'shunt') && spot.terminal.type === 'lead');

export function pinUses(circuit: Circuit): PinUse[] {
  return allSpots(circuit).flatMap((pin): PinUse[] => {
    if (!isType(pin, 'pin') || circuit.netOf(pin.end).wires.length === 0) return [];
    const { spots, lamps } = reachedFrom(circuit, pin);
    const canDrive = pin.terminal.caps.includes('out');
    const divided = plainDivider(circuit, pin);
    const analog = [...spots.filter(isAnalog), ...(divided ? [divided] : [])];
    const digital = spots.filter(
      (spot) => isType(spot, 'digital out') || isOfContact(spot) || isType(spot, 'uart out'),
    );
    const bus = spots.filter((spot) => isType(spot, 'i2c') || isType(spot, 'one-wire'));
    const driven = spots.filter((spot) => DRIVEN.has(spot.terminal.type));
    // A divider may carry a digital signal down to the pin.
    const isDivided =
      analog.some((spot) => hasRole(spot.placed, 'divider')) && dividedDigital(circuit, analog);
    if (analog.length > 0 && !isDivided && driven.length === 0)
      return [{ pin, use: 'reads a voltage', spots: analog }];
    if (bus.length > 0) return [{ pin, use: 'bus', spots: bus }];
    if (digital.length > 0 || isDivided)
      return [{ pin, use: 'reads on and off', spots: [...digital, ...(isDivided ? analog : [])] }];
    if ((driven.length > 0 || lamps.length > 0) && canDrive)
      return [{ pin, use: 'drives', spots: [...driven, ...lamps] }];
    return [{ pin, use: 'nothing', spots }];
  });
}

const dividedDigital = (circuit: Circuit, dividers: readonly Spot[]): boolean =>
  dividers.some(
    ({ placed }) =>
      hasRole(placed, 'divider') &&
      circuit
        .netOf({ part: placed.part.id, terminal: 'in' })
        .spots.some((spot) => isType(spot, 'digital out') || isType(spot, 'uart out')),
  );

/** An output with what it rests at: a module that is on when low rests high. */
export type Output = {
  readonly use: PinUse;
  readonly rests: 'high' | 'low';
  readonly switches: readonly Placed[];
};

function restsAt({ spots, pin }: PinUse, circuit: Circuit): 'high' | 'low' {
  if (spots.some(({ placed, terminal }) => terminal.type === 'digital in' && fact(placed, 'activeLow') === 1))
    return 'high';
  // A lamp from the supply into the pin is lit by a low.
  const near = circuit.netOf(pin.end).spots;
  const sinks = near.some((spot) => hasRole(spot.placed, 'LED') && spot.terminal.id === 'cathode');
  return sinks ? 'high' : 'low';
}

export type Situations = {
  readonly uses: readonly PinUse[];
  readonly outputs: readonly Output[];
  readonly boot: Situation;
  readonly idle: Situation;
  readonly empty: Situation;
  /** For each output: it alone is on. */
  readonly one: ReadonlyMap<Output, Situation>;
  /** For each output that switches a load: that load, and all that may run beside it, at their busiest; the load is just starting. */
  readonly many: ReadonlyMap<Output, Situation>;
  /** For each signal terminal: it alone is high. */
  readonly signals: ReadonlyMap<Spot, Situation>;
  readonly contacts: ReadonlyMap<Placed, Situation>;
  /** Everything that is solved, the first two without knowing another. */
  readonly all: readonly Situation[];
};

/** Whether an output's pin switches something that must not run unasked. */
const isSwitch = (output: Output): boolean => output.switches.length > 0;

const SWITCH_ROLES = ['MOSFET', 'transistor', 'relay', 'driver module', 'servo', 'latching valve'] as const;
/** What shuts a valve lets nothing run. */
const switchesOn = (spot: Spot): boolean =>
  hasRole(spot.placed, ...SWITCH_ROLES) &&
  !(hasRole(spot.placed, 'latching valve') && spot.terminal.id === 'shut');

export function situationsOf(circuit: Circuit): Situations {
  const uses = pinUses(circuit);
  const outputs = uses
    .filter((one) => one.use === 'drives')
    .map((use): Output => ({
      use,
      rests: restsAt(use, circuit),
      switches: use.spots.flatMap((spot) => (switchesOn(spot) ? [spot.placed] : [])),
    }));
  const signalSpots = allSpots(circuit).filter(
    (spot) =>
      isType(spot, 'analog out') ||
      isType(spot, 'digital out') ||
      isBareSignal(circuit, spot) ||
      (isType(spot, 'loop') && spot.terminal.side === 'minus'),
  );
  const contacts = partsWith(circuit, 'contact');
  const flip = (level: 'high' | 'low') => (level === 'high' ? 'low' : 'high');
  const pins = (on: (output: Output) => boolean): Map<string, PinDoes> => {
    const does = new Map<string, PinDoes>();
    for (const { use, pin, spots } of uses) {
      const hasContact = spots.some(isOfContact);
      if (use === 'reads a voltage') does.set(endKey(pin.end), use);
      else if (use === 'reads on and off')
        does.set(endKey(pin.end), hasContact && pin.terminal.caps.includes('out') ? 'reads, pulled up' : use);
    }
    for (const output of outputs)
      does.set(endKey(output.use.pin.end), on(output) ? flip(output.rests) : output.rests);
    return does;
  };
  const base = {
    high: new Set<string>(),
    closed: new Set<string>(),
    starting: new Set<string>(),
    batteries: 'full',
    isBusy: false,
    without: null,
  } as const;
  // What is powered only to be read is powered while signals are looked at.
  const powersProbe = ({ use }: Output) => use.spots.some((spot) => isType(spot, 'supply in'));
  const idle: Situation = { ...base, when: 'with everything off', kind: 'idle', pins: pins(powersProbe) };
  const boot: Situation = {
    ...base,
    when: 'while the board starts',
    kind: 'boot',
    pins: new Map(
      uses.flatMap(({ pin }): [string, PinDoes][] =>
        pin.terminal.highAtBoot ? [[endKey(pin.end), 'high']] : [],
      ),
    ),
  };
  const one = new Map(
    outputs.map((output): [Output, Situation] => [
      output,
      {
        ...base,
        when: `with ${nameOf(output.use.pin)} on`,
        kind: 'one on',
        pins: pins((other) => other === output || powersProbe(other)),
      },
    ]),
  );
  const loads = partsWith(circuit, 'pump', 'valve').map((placed) => placed.part.id);
  const beside = (output: Output | null) =>
    pins(
      (other) =>
        other === output || !isSwitch(other) || other.switches.some((placed) => hasRole(placed, 'servo')),
    );
  const many = new Map(
    outputs.filter(isSwitch).map((output): [Output, Situation] => [
      output,
      {
        ...base,
        when: `with ${nameOf(output.use.pin)} on and all that may run beside it`,
        kind: 'start',
        pins: beside(output),
        starting: new Set(loads),
        isBusy: true,
      },
    ]),
  );
  const busy: Situation = {
    ...base,
    when: 'with everything at its busiest',
    kind: 'many on',
    pins: beside(null),
    isBusy: true,
    closed: new Set(contacts.map((placed) => placed.part.id)),
  };
  const empty: Situation = {
    ...base,
    when: 'with an empty battery',
    kind: 'empty',
    pins: pins(powersProbe),
    batteries: 'empty',
  };
  const signals = new Map(
    signalSpots.map((spot): [Spot, Situation] => [
      spot,
      {
        ...idle,
        when: `with ${nameOf(spot)} at its highest`,
        kind: 'signal',
        high: new Set([endKey(spot.end)]),
      },
    ]),
  );
  const closed = new Map(
    contacts.map((placed): [Placed, Situation] => [
      placed,
      {
        ...idle,
        when: `with ${placed.part.label} closed`,
        kind: 'contact',
        closed: new Set([placed.part.id]),
      },
    ]),
  );
  const hasBattery = partsWith(circuit, 'battery').length > 0;
  return {
    uses,
    outputs,
    boot,
    idle,
    empty,
    one,
    many,
    signals,
    contacts: closed,
    all: [
      boot,
      idle,
      ...one.values(),
      ...signals.values(),
      ...closed.values(),
      busy,
      ...many.values(),
      ...(hasBattery ? [empty] : []),
    ],
  };
}
