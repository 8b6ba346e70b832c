/** Where lines come from. A stand-in, a real board on a serial port and a serial log all look alike from here on. */
import type { LineOrder } from '@plain-trowel/core/control/host/engineHost';
import type { Can } from '@plain-trowel/core/live/reading';
import type { ProbeFault, ProbePlace } from '@plain-trowel/standins/board/potProbe';
import type { BoardFault } from '@plain-trowel/standins/board/world';
import type { Answers } from '@plain-trowel/core/control/host/answers';
import type { EventDraft } from '@plain-trowel/core/records/event';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { Said } from '@plain-trowel/core/sketch/talk';

export type Line = { readonly boardId: string; readonly text: string; readonly atMs: number };

export type SourceStatus = 'opening' | 'open' | 'ended' | 'failed';

export type SourceUpdate =
  | { readonly kind: 'lines'; readonly lines: readonly Line[] }
  /** The bytes behind the lines, where a source has some: they tell the speed a board really sends at. */
  | { readonly kind: 'bytes'; readonly bytes: Uint8Array; readonly baudRate: number }
  | { readonly kind: 'status'; readonly status: SourceStatus; readonly message?: string }
  | { readonly kind: 'answers'; readonly answers: Answers }
  | { readonly kind: 'events'; readonly events: readonly EventDraft[] };

export type Emit = (update: SourceUpdate) => void;

export const SPEEDS = [1, 10, 60] as const;
export type Speed = (typeof SPEEDS)[number];

/** Water lines that take orders by hand. */
export type Orders = { readonly order: (order: LineOrder) => void };
/** A clock that a person can turn. */
export type Clock = { readonly speed: Speed; readonly setSpeed: (speed: Speed) => void };
/** A made-up world in which a hand can pour, move probes, fill tanks and break things. */
export type Hands = {
  readonly pour: (plotId: string, volumeMl: number) => void;
  readonly move: (probeId: string, place: ProbePlace) => void;
  readonly placeOf: (probeId: string) => ProbePlace;
  readonly fill: (tankId: string, share: number) => void;
  readonly faultOf: (probeId: string) => ProbeFault;
  readonly setFault: (probeId: string, fault: ProbeFault) => void;
  /** Switches that a person can turn, by channel. */
  readonly switchOf: (channelId: string) => boolean;
  readonly setSwitch: (channelId: string, isOn: boolean) => void;
  readonly boardFaultOf: (boardId: string) => BoardFault;
  readonly setBoardFault: (boardId: string, fault: BoardFault) => void;
  readonly cycling: boolean;
  readonly setCycling: (cycling: boolean) => void;
};

/** What the board at the end of a line runs, as it says itself. */
export type RunningProgram = {
  readonly number: number;
  /** The same settings have the same name. */
  readonly name: string;
  /** By the id of the line: limits, dose and whether it waters by itself, as the board prints them. */
  readonly limits: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** By the name of an input what the board makes of it, tenths; null: it knows no percent. */
  readonly percents: Readonly<Record<string, number | null>>;
  /** Its newest lines that are no readings, the oldest first. */
  readonly recent: readonly string[];
  /** Its newest events, numbered as they came, the oldest first. */
  readonly events: readonly {
    readonly seq: number;
    readonly said: Said & { kind: 'event' | 'contact-event' };
  }[];
  /** What it answered last to something typed, and how often it has answered. */
  readonly answer: { readonly count: number; readonly said: Said & { kind: 'taken' | 'refused' } } | null;
};

/** A board that runs a program written here. */
export type BoardAtTheLine = {
  readonly boardId: string;
  readonly program: RunningProgram;
  /** Types a line at its console. */
  readonly type: (text: string) => void;
  /** The number of a water line at its console; null while nobody knows it. */
  readonly numberOf: (lineId: string) => number | null;
};

export interface LineSource {
  readonly label: string;
  /** The readings are not from a real probe. */
  readonly simulated: boolean;
  readonly can: Can;
  /** What a person can do there; null where nothing of it can be done. */
  readonly orders: Orders | null;
  readonly clock: Clock | null;
  readonly hands: Hands | null;
  /** What its board says it runs, and its console; null for a board that has not said that it runs a program of ours. */
  readonly board: BoardAtTheLine | null;
  /** The garden has changed. */
  setGarden?(garden: Garden): void;
  start(emit: Emit): void;
  stop(): Promise<void>;
  /** The source's own time, ms since 1970. */
  nowMs(): number;
}
