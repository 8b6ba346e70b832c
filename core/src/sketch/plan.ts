/** What a board's program is written from: its inputs, its outputs and its engine's settings; or what is missing. */
import type { BoardTable, TablePoint } from '../calibration/boardTable.ts';
import type { I2cRead, I2cTalk } from '../catalogue/i2cTalk.ts';
import type { ContactConfig } from '../control/contacts/contract.ts';
import type { Around } from '../control/contract/types.ts';
import type { EngineConfig } from '../control/engine/settings.ts';
import type { DecidedBy } from '../control/host/combined.ts';
import type { SignalLimits, SignalRule } from '../control/signals.ts';
import type { BandEdges } from '../quantity/bands.ts';
import { fullScaleCounts } from '../electrics/converter.ts';
import type { Output, Pin } from './pins.ts';

export type SketchInput = {
  readonly channelId: string;
  /** The name that the board prints it by, which the page knows already. */
  readonly name: string;
  readonly label: string;
  readonly pin: Pin;
  /** The pin that listens, of a sensor that has two. */
  readonly second?: Pin;
  readonly reads: Reads;
  /** Of a bus probe: its place among those of the bus, the word of its answer, and how that is read. */
  readonly register?: SketchRegister;
  /** Of a part on I2C: its place among what is asked, and what it gives. */
  readonly asked?: SketchAsked;
  /** Place in the powers, of a probe that is powered only to be read. */
  readonly power?: number;
  /** Of a probe at another board, whose readings the gateway tells: that board's name, and decimals of its numbers. */
  readonly far?: { readonly board: string; readonly decimals: Decimals };
};

/** What is read at another board has no pin here. */
export const NO_PIN: Pin = { kind: 'pin', number: 0 };

/** Registers, in the order of the numbers that boards know them by. */
export const WORD_KINDS = [
  'uint16',
  'int16',
  'int32, high first',
  'int32, low first',
  'float32, high first',
  'float32, low first',
] as const;
export type WordKind = (typeof WORD_KINDS)[number];

export type SketchRegister = {
  readonly probe: number;
  readonly word: number;
  readonly kind: WordKind;
  /** Number × times / per + plus, towards nothing, is a whole number of the last of these decimals. */
  readonly decimals: Decimals;
  readonly times: number;
  readonly per: number;
  readonly plus: number;
};

/** The bus of a board: its pins, its speed, and what each probe on it is asked for, by its function from a register on. */
export type SketchBus = {
  readonly tx: Pin;
  readonly rx: Pin;
  /** The pin that tells the transceiver to speak; null: it switches by itself. */
  readonly direction: Pin | null;
  readonly baud: number;
  readonly probes: readonly {
    readonly address: number;
    readonly function: 3 | 4;
    readonly register: number;
    readonly count: number;
  }[];
};

export type SketchAsked = {
  readonly place: number;
  readonly address: number;
  readonly decimals: Decimals;
  /** Whole numbers of the last of its decimals that it may give. */
  readonly least: number;
  readonly most: number;
};

/** What is on I2C: parts by their pins and addresses with what they are told at first, and what is asked of them. */
export type SketchI2c = {
  readonly parts: readonly {
    readonly sda: Pin;
    readonly scl: Pin;
    readonly address: number;
    readonly begin: I2cTalk['begin'];
  }[];
  readonly asks: readonly { readonly part: number; readonly read: I2cRead }[];
};

/** A pin that feeds probes only while they are read. */
export type SketchPower = {
  readonly pin: Pin;
  /** From switching on until a reading is good, s, whole and at least 1. */
  readonly waitS: number;
  /** From one reading to the next, s. */
  readonly everyS: number;
};

/** Counts of the converter, 0 and 1, mm from the time that an echo takes, hundredths of a degree from a 1-Wire thermometer, mV at the pin, a register of a bus probe, what a part on I2C answers, what another board has read. */
export const READS = ['analog', 'digital', 'distance', 'one-wire', 'volts', 'bus', 'i2c', 'far'] as const;
export type Reads = (typeof READS)[number];

export type Decimals = 0 | 1 | 2 | 3;
/** Decimals that the board prints behind the point of its whole numbers: hundredths of a degree, thousandths of a volt; of a register its map tells. */
const DECIMALS: Readonly<Record<Exclude<Reads, 'bus' | 'i2c' | 'far'>, Decimals>> = {
  analog: 0,
  digital: 0,
  distance: 0,
  'one-wire': 2,
  volts: 3,
};

type Read = Pick<SketchInput, 'reads' | 'register' | 'asked' | 'far'>;
export function decimalsOf({ reads, register, asked, far }: Read): Decimals {
  if (reads === 'bus') return register?.decimals ?? 0;
  if (reads === 'far') return far?.decimals ?? 0;
  return reads === 'i2c' ? (asked?.decimals ?? 0) : DECIMALS[reads];
}

/** The whole numbers that reading may give, of what conditions go by. */
export function rawRange({
  reads,
  register,
  asked,
  adcBits,
}: Read & {
  readonly adcBits: number;
}): readonly [number, number] {
  switch (reads) {
    case 'bus': {
      // Temperatures alone: no soil and no air that a plant lives in is beyond these.
      const one = 10 ** (register?.decimals ?? 0);
      return [-55 * one, 85 * one - 1];
    }
    case 'i2c':
      return [asked?.least ?? 0, asked?.most ?? 0];
    case 'analog':
      return [0, fullScaleCounts(adcBits)];
    case 'digital':
      return [0, 1];
    case 'distance':
      return [0, 5200];
    case 'one-wire':
      // Beyond this lies what such a thermometer says before it has measured.
      return [-5500, 8499];
    case 'volts':
      return [0, 30_000];
    case 'far':
      // Whoever asks hands in how the other board reads it.
      return [0, 0];
  }
}

export type SketchLine = {
  /** Of the water line in the garden: what a board keeps belongs to it. */
  readonly id: string;
  readonly name: string;
  readonly output: Output;
};

/** An output that holds a state, with its settings and what it goes by. */
export type SketchContact = SketchLine & { readonly config: ContactConfig; readonly around: SketchAround };

/** Places in the senses; null: not asked for. */
export type SketchAround = Readonly<Record<keyof Around, number | null>>;
export const NOTHING_ASKED: SketchAround = {
  airTenthsC: null,
  light: null,
  rain: null,
  soilTenthsC: null,
  skip: null,
};

/** A plot whose lamps, buzzers and displays this board switches: what they go by. */
export type SketchWatch = {
  readonly plot: string;
  /** Places in the engine's lists; no sensor where no calibration holds. */
  readonly sensor: number | null;
  readonly lines: readonly number[];
  readonly tanks: readonly number[];
  /** Places in the senses. */
  readonly air: number | null;
  readonly soil: number | null;
  readonly light: number | null;
  readonly darkBelow: number | null;
  readonly limits: SignalLimits;
  /** Something that the plot is judged by is known to another board only: nothing is ever content here. */
  readonly isBlind: boolean;
};

/** A lamp of one colour, one of three, or a buzzer; pins in the order red, green, blue. */
export type SketchLamp = {
  /** A ring has one pin, for its data. */
  readonly kind: 'one' | 'three' | 'buzzer' | 'ring';
  readonly name: string;
  /** Place in the watches. */
  readonly watch: number;
  readonly pins: readonly Output[];
  /** Of a ring how many it has. */
  readonly lights?: number;
};

/** A small display on I2C, and what stands for the places of its texts: places in the inputs, the senses and the tanks. */
export type SketchDisplay = {
  readonly name: string;
  readonly watch: number;
  readonly sda: Pin;
  readonly scl: Pin;
  readonly address: number;
  /** Dots that letters are drawn with, or letters of its own. */
  readonly of: 'dots' | 'letters';
  readonly raw: number | null;
  readonly temperature: number | null;
  readonly battery: number | null;
  readonly tank: number | null;
  /** From dry to flooded, and where each but the last ends, tenths. */
  readonly words: readonly string[];
  readonly edges: BandEdges;
  readonly scale: 'percent' | 'tension' | 'counts' | 'switch';
  readonly unit: string;
};

/** One probe of several that decide together. */
export type SketchMember = {
  readonly input: number;
  readonly table: BoardTable;
  readonly lowRaw: number;
  readonly highRaw: number;
};
/** Where a sensor's readings come from: one input, or several that are put together before the engine sees them. */
export type SketchSource =
  | { readonly by: 'one'; readonly input: number }
  | { readonly by: Exclude<DecidedBy, 'one'>; readonly members: readonly SketchMember[] };

/** What an input means where a condition goes by it. */
export type SketchSense = {
  /** Place in the inputs. */
  readonly input: number;
  /** Linear between its points; outside of them nothing is known. */
  readonly table: readonly TablePoint[];
};

/** How a board reports over the network: over what, by which names, and how often at first, s. */
export type SketchNetwork = {
  readonly over: 'http' | 'mqtt';
  readonly gardenId: string;
  readonly boardId: string;
  readonly everyS: number;
};

/** How a board sleeps between its readings: from one waking to the next, awake at least, and awake as a rule with its start and the network, s. */
export type SketchSleep = { readonly everyS: number; readonly awakeS: number; readonly usualS: number };

export type BoardPlan = {
  /** Null: it stays awake. */
  readonly sleep: SketchSleep | null;
  /** Null: it speaks over its serial line alone. */
  readonly network: SketchNetwork | null;
  readonly garden: string;
  readonly board: string;
  readonly traits: string;
  readonly adcBits: number;
  /** Of its converter, mV. */
  readonly referenceMv: number;
  readonly inputs: readonly SketchInput[];
  readonly powers: readonly SketchPower[];
  /** Null: no probe on a bus. */
  readonly bus: SketchBus | null;
  readonly i2c: SketchI2c | null;
  readonly lines: readonly SketchLine[];
  readonly contacts: readonly SketchContact[];
  readonly watches: readonly SketchWatch[];
  readonly lamps: readonly SketchLamp[];
  readonly displays: readonly SketchDisplay[];
  /** What lamps say, by priority: those that are switched on. */
  readonly signals: readonly SignalRule[];
  readonly engine: EngineConfig;
  readonly sources: readonly SketchSource[];
  /** Places in the inputs, by tank. */
  readonly tankInputs: readonly number[];
  readonly senses: readonly SketchSense[];
  /** By line. */
  readonly around: readonly SketchAround[];
  /** Place of the battery in the senses; null: no condition asks for it. */
  readonly battery: number | null;
  /** What stands above the program: calibrations and pins, one line each. */
  readonly heading: readonly string[];
  /** Channels of the board that are left out, and why. */
  readonly leftOut: readonly SketchProblem[];
};

/** The inputs that a sensor is read from. */
export const inputsOf = (source: SketchSource): readonly number[] =>
  source.by === 'one' ? [source.input] : source.members.map(({ input }) => input);

/** What a sensor of the engine is read from: a probe, or several. @param at its place in the engine's list */
export function sensorLabel({ sources, inputs }: BoardPlan, at: number): string {
  const places = sources[at] ? inputsOf(sources[at]) : [];
  return places.flatMap((place) => inputs[place]?.label ?? []).join(', ');
}

/** Why something cannot be written into a board's program. `sheet` is where it is set. */
export type SketchProblem = {
  readonly kind:
    | 'nothing-to-do'
    | 'no-input-pin'
    /** It is powered only to be read, and no pin of the board feeds it. */
    | 'no-power-pin'
    /** A bus probe whose transceiver is not drawn, or whose registers are of a kind that is not read. */
    | 'no-bus'
    /** Its probes are set to more bits a second than the program in C++ can time. */
    | 'bus-too-fast'
    /** A bus probe of which nobody has said its address and its registers. */
    | 'bus-unknown'
    /** Set to another speed than those that it shares its wires with. */
    | 'bus-speeds'
    /** On a bus, and fed only to be read. */
    | 'bus-fed'
    /** A part on I2C that is not drawn up to the pins of the board. */
    | 'no-i2c'
    | 'no-address'
    /** Its entry in the catalogue does not say how it is asked. */
    | 'not-told'
    | 'no-name'
    /** Two inputs, or an input and an output, are written to one pin. */
    | 'pin-taken-twice'
    | 'kind-not-written'
    | 'no-output-pin'
    /** It is to permit at rest, and its relay is open then. */
    | 'contact-turned-round'
    /** A lamp of a kind that the program does not know. */
    | 'lamp-not-written'
    /** A ring of lights, and on an 8-bit board a display: only the program in MicroPython speaks to it. */
    | 'ring-in-python'
    | 'display-in-python'
    /** Reports over the network: the program in C++ does not on this board. */
    | 'network-in-python'
    /** It is to sleep between readings: only the program in MicroPython does. */
    | 'sleep-in-python'
    /** It is to sleep, but holds outputs or reads so often that it stays awake. */
    | 'awake-holds'
    | 'awake-short'
    /** Its probe is at another board: the program in C++ does not hear of it on this board. */
    | 'far-in-python'
    /** A probe that speaks in numbers of its own, which the program does not turn into counts. */
    | 'own-numbers'
    /** A tensiometer of whose counts nobody has said which tension they are. */
    | 'no-tension'
    | 'not-calibrated'
    /** A condition goes by a sensor whose numbers nobody has given a meaning: a thermistor without its values. */
    | 'no-meaning'
    /** Something that it goes by is measured by another board, and this one does not report over the network: nobody can tell it. */
    | 'other-board'
    | 'tank-unread'
    | 'contradiction'
    /** The program in C++ needs more working memory than such a board has. */
    | 'too-large'
    | 'no-python';
  readonly what: string;
  readonly sheet:
    'plan/parts' | 'plan/wiring' | 'bench/readout' | 'bench/calibrate' | 'bench/dose' | 'rules/limits';
  /** The channel whose pins would solve it, and how many it has. */
  readonly channelId?: string;
  readonly pins?: 1 | 2;
};
