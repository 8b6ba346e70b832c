/**
 * What each kind of part is to the solver. Figures that the catalogue does not have stand here with their reason; those that a person may know are facts, and
 * a missing one is noted by `known`.
 */
import type { Role, TerminalOf } from '../../catalogue/schema.ts';
import { hasRole, isBareSensor, isType, spotAt, type Spot } from '../circuit.ts';
import { endKey } from '../netlist.ts';
import type { Device, Law, Sense } from './law.ts';
import type { Build } from './build.ts';

type Model = (build: Build) => void;

/** Half a volt of a hundred is lost inside a battery at the most it gives: enough to see a short, too little to see in use. */
const BATTERY_SAG = 0.03;
/** Of its full voltage a battery still has so much when it is empty: 11.4 of 14.4 V, 3.0 of 4.2 V, 3.3 of 4.8 V. */
const EMPTY_SHARE = { lead: 0.79, lithium: 0.714, other: 0.69 } as const;
/** Of its full voltage, what an empty battery has. */
export const emptyShare = (name: string): number =>
  EMPTY_SHARE[/lithium/i.test(name) ? 'lithium' : /lead/i.test(name) ? 'lead' : 'other'];
const SUPPLY_OHM = 0.02;
const CONTACT_OHM = 0.05;
/** A pin loses a tenth of its voltage at the most it may give. */
const PIN_SAG = 0.1;
/** What boards put behind their pins as pull-ups. */
export const PIN_PULL_UP_OHM = 45_000;
const DIODE = { forwardV: 0.7, ohm: 0.05 } as const;
/** A part works from about this share of its least voltage on. */
const WAKES_AT = 0.85;

const resistor = (ohm: number): Law => ({ kind: 'resistor', ohm: () => ohm });

/** Whether a part has about the voltage it wants between its supply and its ground. */
function isFed(build: Build): (sense: Sense) => boolean {
  const { ground } = build;
  const feeds = build.placed.spots.flatMap((spot) =>
    isType(spot, 'supply in')
      ? [{ node: build.nodeAt(spot), wakesV: WAKES_AT * (spot.terminal.minV ?? 3) }]
      : [],
  );
  if (feeds.length === 0 || ground === null) return () => true;
  // Asked again and again, by every pin of a board.
  return (sense) => feeds.some(({ node, wakesV }) => sense.across(node, ground) >= wakesV);
}

/** The most a part takes when all is well, and at its busiest, A. */
function draw(build: Build): (sense: Sense) => number {
  const { placed } = build;
  const activeMa = placed.part.settings.activeMa ?? placed.entry.facts.activeMa ?? null;
  const peakMa = placed.part.settings.peakMa ?? placed.entry.facts.peakMa ?? null;
  const usual = build.knownOf(activeMa ?? peakMa, 'activeMa', 20);
  const busy = Math.max(usual, peakMa ?? 0, placed.part.settings.radioMa ?? placed.entry.facts.radioMa ?? 0);
  return ({ situation }) => (situation.isBusy ? busy : usual) / 1000;
}

/** Every supply input of a part, as what it takes. */
function feed(build: Build, amps: (sense: Sense) => number = draw(build)): void {
  for (const spot of build.placed.spots)
    if (isType(spot, 'supply in'))
      build.add(`feed ${spot.terminal.id}`, build.nodeAt(spot), build.ground, {
        kind: 'sink',
        amps,
        fromV: Math.max(0.5, WAKES_AT * (spot.terminal.minV ?? 3)),
      });
}

/** What a terminal gives, whose level may follow a supply of its part. */
function levelOf(
  build: Build,
  { terminal }: Spot & { terminal: TerminalOf<'analog out' | 'digital out' | 'uart out'> },
): (sense: Sense) => number {
  const follows = terminal.follows === undefined ? null : build.node(terminal.follows);
  const { ground } = build;
  if (follows !== null && ground !== null) return (sense) => Math.max(0, sense.across(follows, ground));
  const volts = build.knownOf(terminal.highV, 'ratedV', 3.3);
  return () => volts;
}

/** Signals a part gives, those it takes, and its own pull-ups. */
function signals(build: Build): void {
  const fed = isFed(build);
  const { ground } = build;
  for (const spot of build.placed.spots) {
    const { terminal } = spot;
    const node = build.nodeAt(spot);
    const key = endKey(spot.end);
    if (isType(spot, 'analog out')) {
      const high = levelOf(build, spot);
      const low = spot.terminal.lowV ?? 0;
      build.add(`signal ${terminal.id}`, node, ground, {
        kind: 'source',
        volts: (sense) => (!fed(sense) ? null : sense.situation.high.has(key) ? high(sense) : low),
        ohm: Math.max(1, build.knownOf(spot.terminal.sourceOhm, 'sourceLimitOhm', 1000)),
        mostA: 1,
        takes: true,
      });
    } else if (isType(spot, 'digital out') || isType(spot, 'uart out')) {
      const high = levelOf(build, spot);
      build.add(`signal ${terminal.id}`, node, ground, {
        kind: 'source',
        volts: (sense) =>
          !fed(sense) ? null : sense.situation.high.has(key) || isType(spot, 'uart out') ? high(sense) : 0,
        ohm: 100,
        mostA: 1,
        takes: true,
      });
    } else if (isType(spot, 'digital in')) {
      const highV = spot.terminal.highFromV ?? 2;
      const takesMa = spot.terminal.takesMa ?? 0.1;
      build.add(`input ${terminal.id}`, node, ground, resistor(highV / Math.max(0.01, takesMa) / 0.001));
    } else if (isType(spot, 'uart in')) build.add(`input ${terminal.id}`, node, ground, resistor(1e6));
    else if (isType(spot, 'i2c')) {
      const ohm = build.placed.part.settings.ownPullUpOhm ?? build.placed.entry.facts.ownPullUpOhm ?? null;
      const supply = build.placed.spots.find((one) => isType(one, 'supply in'));
      if (ohm !== null && supply)
        build.add(`pull-up ${terminal.id}`, build.nodeAt(supply), node, resistor(ohm));
    } else if (isType(spot, 'analog in'))
      build.add(`input ${terminal.id}`, node, ground, resistor(build.known('inputOhm', 1e7)));
  }
}

const module: Model = (build) => {
  feed(build);
  signals(build);
};

const passes =
  (from: string, to: string, ohm: (build: Build) => number): Model =>
  (build) => {
    build.add('itself', build.node(from), build.node(to), resistor(ohm(build)));
  };

const load: Model = (build) => {
  const ratedV = build.known('ratedV', 12);
  const activeMa = build.known('activeMa', 500);
  const peakMa = Math.max(
    activeMa,
    build.placed.part.settings.peakMa ?? build.placed.entry.facts.peakMa ?? 0,
  );
  build.add('itself', build.node('plus'), build.node('minus'), {
    kind: 'resistor',
    ohm: ({ starting }) => ratedV / ((starting.has(build.placed.part.id) ? peakMa : activeMa) / 1000),
  });
};

/** Every output of a supply; a battery takes current as well. */
const source =
  (takes: boolean): Model =>
  (build) => {
    const outs = build.placed.spots.filter((spot) => isType(spot, 'supply out'));
    for (const out of outs) {
      if (!isType(out, 'supply out')) continue;
      const fullV = build.knownOf(out.terminal.volts, 'ratedV', 12);
      const mostMa = build.knownOf(out.terminal.maxMa, 'regulatorMa', 1000);
      const emptyV = fullV * emptyShare(build.placed.entry.name);
      build.add(outs.length > 1 ? `gives ${out.terminal.id}` : 'itself', build.nodeAt(out), build.ground, {
        kind: 'source',
        volts: ({ situation }) => (takes && situation.batteries === 'empty' ? emptyV : fullV),
        ohm: takes ? Math.max(0.005, (BATTERY_SAG * fullV) / (mostMa / 1000)) : SUPPLY_OHM,
        mostA: mostMa / 1000,
        takes,
      });
    }
  };

/** Turns one voltage into another: its outputs live while its input does, and what they give is taken there. */
function converter(build: Build, own: (sense: Sense) => number, extra: (sense: Sense) => number): void {
  const { placed, ground } = build;
  const fed = isFed(build);
  const inlet = placed.spots.find((spot) => isType(spot, 'supply in'));
  const inNode = inlet ? build.nodeAt(inlet) : null;
  const outs: { device: Device; volts: number }[] = [];
  for (const spot of placed.spots) {
    if (!isType(spot, 'supply out')) continue;
    const volts = build.knownOf(spot.terminal.volts, 'ratedV', 5);
    const mostMa = build.knownOf(spot.terminal.maxMa, 'regulatorMa', 400);
    const device = build.add(`gives ${spot.terminal.id}`, build.nodeAt(spot), ground, {
      kind: 'source',
      volts: (sense) => (fed(sense) ? volts : null),
      ohm: SUPPLY_OHM,
      mostA: mostMa / 1000,
      takes: false,
    });
    if (device) outs.push({ device, volts });
  }
  // A switching regulator hands on power, a board's own regulator current.
  const isSwitching = hasRole(placed, 'regulator');
  feed(build, (sense) => {
    const inV = inNode !== null && ground !== null ? sense.across(inNode, ground) : 0;
    const given = outs.reduce((sum, { device, volts }) => {
      const amps = Math.max(0, -sense.ampsOf(device));
      return sum + (isSwitching && inV > 1 ? (amps * volts) / inV / 0.9 : amps);
    }, 0);
    return own(sense) + given + extra(sense);
  });
}

/** A board or port expander: its regulator, and every pin as the situation sets it. */
const board: Model = (build) => {
  const { placed, ground } = build;
  const fed = isFed(build);
  const logicV = build.known('logicV', 3.3);
  const pinMa = build.known('pinMa', 10);
  const pins: Device[] = [];
  converter(build, draw(build), (sense) =>
    pins.reduce((sum, pin) => sum + Math.max(0, -sense.ampsOf(pin)), 0),
  );
  for (const spot of placed.spots) {
    if (!isType(spot, 'pin')) continue;
    const key = endKey(spot.end);
    const { terminal } = spot;
    const node = build.nodeAt(spot);
    const device = build.add(`drives ${terminal.id}`, node, ground, {
      kind: 'source',
      volts: (sense) => {
        const does = sense.situation.pins.get(key);
        if (!fed(sense)) return null;
        return does === 'high' ? logicV : does === 'low' ? 0 : null;
      },
      ohm: (PIN_SAG * logicV) / (pinMa / 1000),
      mostA: Infinity,
      takes: true,
    });
    if (device) pins.push(device);
    build.add(`pull-up ${terminal.id}`, node, ground, {
      kind: 'source',
      volts: (sense) => (fed(sense) && sense.situation.pins.get(key) === 'reads, pulled up' ? logicV : null),
      ohm: PIN_PULL_UP_OHM,
      mostA: Infinity,
      takes: true,
    });
    build.add(`input ${terminal.id}`, node, ground, {
      kind: 'resistor',
      // An input at rest takes nothing; only the converter's own load counts, while it reads.
      ohm: ({ pins: does }) =>
        does.get(key) === 'reads a voltage'
          ? (placed.part.settings.inputOhm ?? placed.entry.facts.inputOhm ?? 1e8)
          : Infinity,
    });
  }
  signals(build);
};

const mosfet: Model = (build) => {
  const fullOnV = build.known('gateFullOnV', 4.5);
  const ohm = build.known('onOhm', 0.05);
  const [gate, drain, low] = [build.node('gate'), build.node('drain'), build.node('source')];
  if (gate === null || low === null) return;
  build.add('channel', drain, low, {
    kind: 'switch',
    ohm,
    isClosed: (sense) => {
      const v = sense.across(gate, low);
      return v >= 0.9 * fullOnV ? 'closed' : v > 0.4 * fullOnV ? 'half' : 'open';
    },
  });
  // Every MOSFET has a diode from source to drain: turned round it is always on.
  build.add('body', low, drain, { kind: 'diode', ...DIODE });
};

const transistor: Model = (build) => {
  const hfe = build.known('hfe', 100);
  const [base, collector, emitter] = [build.node('base'), build.node('collector'), build.node('emitter')];
  const into = build.add('base', base, emitter, { kind: 'diode', forwardV: 0.7, ohm: 1 });
  build.add('collector', collector, emitter, {
    kind: 'collector',
    mostA: (sense) => (into ? hfe * Math.max(0, sense.ampsOf(into)) : 0),
  });
  // Base to collector: what a transistor does when it is put in the wrong way round.
  build.add('wrong way', base, collector, { kind: 'diode', forwardV: 0.75, ohm: 1 });
};

/** A relay module: an input that takes current, a coil that is on or off, a contact between two terminals that touch nothing else. */
const relay: Model = (build) => {
  const { placed, ground } = build;
  const fed = isFed(build);
  const vcc = build.node('vcc');
  const input = placed.spots.find((spot) => isType(spot, 'digital in'));
  const activeLow = build.known('activeLow', 0) === 1;
  const coilA = build.known('peakMa', 75) / 1000;
  const takesA = (input && isType(input, 'digital in') ? (input.terminal.takesMa ?? 5) : 5) / 1000;
  const highV = (input && isType(input, 'digital in') ? input.terminal.highFromV : null) ?? 2.5;
  let light: Device | null = null;
  if (input && activeLow)
    light = build.add('input in', vcc, build.nodeAt(input), {
      kind: 'diode',
      forwardV: 1.2,
      ohm: 3.8 / Math.max(0.0005, takesA),
    });
  else if (input)
    light = build.add('input in', build.nodeAt(input), ground, resistor(highV / Math.max(0.0005, takesA)));
  const isOn = (sense: Sense) => {
    if (!light || !fed(sense)) return false;
    const amps = sense.ampsOf(light);
    return activeLow ? amps > 0.3 * takesA : amps >= 0.95 * takesA;
  };
  feed(build, (sense) => (isOn(sense) ? coilA : 0.001));
  build.add('contact', build.node('common'), build.node('open'), {
    kind: 'switch',
    ohm: CONTACT_OHM,
    isClosed: (sense) => (isOn(sense) ? 'closed' : 'open'),
  });
};

const driver: Model = (build) => {
  const { ground } = build;
  const input = build.placed.spots.find((spot) => isType(spot, 'digital in'));
  signals(build);
  if (!input || !isType(input, 'digital in') || ground === null) return;
  const node = build.nodeAt(input);
  const highV = input.terminal.highFromV ?? 3;
  build.add('channel', build.node('load'), ground, {
    kind: 'switch',
    ohm: 0.03,
    isClosed: (sense) => {
      const v = sense.across(node, ground);
      return v >= 0.93 * highV ? 'closed' : v > 0.4 * highV ? 'half' : 'open';
    },
  });
  build.add('body', ground, build.node('load'), { kind: 'diode', ...DIODE });
};

const contact: Model = (build) => {
  build.add('contact', build.node('out'), build.ground, {
    kind: 'switch',
    ohm: 0.2,
    isClosed: ({ situation }) => (situation.closed.has(build.placed.part.id) ? 'closed' : 'open'),
  });
};

const divider: Model = (build) => {
  build.add('upper', build.node('in'), build.node('out'), resistor(build.known('upperOhm', 10_000)));
  build.add('lower', build.node('out'), build.ground, resistor(build.known('lowerOhm', 10_000)));
};

const LINES = [1, 2, 3, 4] as const;
/** Each side of a line is pulled to its own supply; a low on either side pulls the other down. */
const shifter: Model = (build) => {
  const [lv, hv] = [build.node('lv'), build.node('hv')];
  for (const line of LINES) {
    const [low, high] = [build.node(`lv${line}`), build.node(`hv${line}`)];
    if (lv === null || hv === null || low === null || high === null) continue;
    build.add(`pull-up lv${line}`, lv, low, resistor(10_000));
    build.add(`pull-up hv${line}`, hv, high, resistor(10_000));
    build.add(`line ${line}`, high, low, {
      kind: 'switch',
      ohm: 20,
      isClosed: (sense) => (sense.across(lv, low) > 1.2 ? 'closed' : 'open'),
    });
    build.add(`body ${line}`, low, high, { kind: 'diode', forwardV: 0.6, ohm: 10 });
  }
};

const panel: Model = (build) => {
  const ratedV = build.known('ratedV', 12);
  const panelW = build.known('panelW', 10);
  build.add('itself', build.node('plus'), build.ground, {
    kind: 'source',
    // Its charger stops where a full battery stands.
    volts: () => 1.2 * ratedV,
    ohm: SUPPLY_OHM,
    mostA: panelW / ratedV,
    takes: false,
  });
};

/** A bare sensor is at its highest where its resistance is least. */
const bareSensor: Model = (build) => {
  const [mostOhm, leastOhm] = [build.known('mostOhm', 50_000), build.known('leastOhm', 2000)];
  const keys = build.placed.spots.map((spot) => endKey(spot.end));
  build.add('itself', build.node('a'), build.node('b'), {
    kind: 'resistor',
    ohm: ({ high }) => (keys.some((key) => high.has(key)) ? leastOhm : mostOhm),
  });
};

const sensor: Model = (build) => (isBareSensor(build.placed) ? bareSensor : module)(build);

const probe: Model = (build) => {
  if (!spotAt(build.placed, 'plus')) {
    sensor(build);
    return;
  }
  const key = endKey({ part: build.placed.part.id, terminal: 'minus' });
  build.add('loop', build.node('plus'), build.node('minus'), {
    kind: 'sink',
    amps: ({ situation }) => (situation.high.has(key) ? 0.02 : 0.004),
    fromV: build.known('loopV', 8),
  });
};

export const MODELS: Readonly<Record<Role, Model>> = {
  probe,
  'humidity probe': module,
  thermometer: sensor,
  'light sensor': sensor,
  'level sensor': module,
  contact,
  'battery monitor': divider,
  board,
  lamp: module,
  LED: (build) => {
    build.add('itself', build.node('anode'), build.node('cathode'), {
      kind: 'diode',
      forwardV: build.known('forwardV', 2),
      ohm: 1,
    });
  },
  buzzer: module,
  display: module,
  pump: load,
  valve: load,
  // Of the mains nothing is known here; a low-voltage input takes its current.
  'mains plug': signals,
  servo: module,
  'latching valve': module,
  MOSFET: mosfet,
  transistor,
  relay,
  'driver module': driver,
  diode: (build) => {
    build.add('itself', build.node('anode'), build.node('cathode'), { kind: 'diode', ...DIODE });
  },
  resistor: passes('a', 'b', (build) => build.known('ohm', 1000)),
  divider,
  'pull-ups': (build) => {
    const ohm = build.known('ohm', 4700);
    build.add('sda', build.node('up'), build.node('sda'), resistor(ohm));
    build.add('scl', build.node('up'), build.node('scl'), resistor(ohm));
  },
  shunt: (build) => {
    build.add('itself', build.node('in'), build.ground, resistor(build.known('ohm', 150)));
  },
  'level shifter': shifter,
  transceiver: module,
  converter: module,
  expander: board,
  battery: source(true),
  solar: panel,
  regulator: (build) => {
    const own = draw(build);
    converter(build, own, () => 0);
  },
  supply: source(false),
  fuse: passes('a', 'b', () => 0.01),
};
