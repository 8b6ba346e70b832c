/** Where lines come from. A stand-in, a real board on a serial port and a serial log all look alike from here on. */
import type { LineOrder } from '@plain-trowel/core/control/host/engineHost';
import type { BoardReading, Can } from '@plain-trowel/core/live/reading';
import type { ProbeFault, ProbePlace } from '@plain-trowel/standins/board/potProbe';
import type { BoardFault } from '@plain-trowel/standins/board/world';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import type { EventDraft } from '@plain-trowel/core/records/event';
import type { BoardAtTheLine, BoardUpdate } from '@plain-trowel/core/following/boardTalk';

export type Line = { readonly boardId: string; readonly text: string; readonly atMs: number };

export type SourceStatus = 'opening' | 'open' | 'ended' | 'failed';

export type SourceUpdate =
  | { readonly kind: 'lines'; readonly lines: readonly Line[] }
  /** Readings that nobody had to read out of lines. */
  | { readonly kind: 'readings'; readonly readings: readonly BoardReading[] }
  /** Such as were taken while nobody looked: for the log alone. */
  | { readonly kind: 'past'; readonly readings: readonly BoardReading[] }
  /** The bytes behind the lines, where a source has some: they tell the speed a board really sends at. */
  | { readonly kind: 'bytes'; readonly bytes: Uint8Array; readonly baudRate: number }
  | { readonly kind: 'status'; readonly status: SourceStatus; readonly message?: string }
  /** Alerts as whoever judges them has them stand. */
  | { readonly kind: 'alerts'; readonly states: AlertStates }
  /** Alerts that were told elsewhere; `isNew`: just now. */
  | { readonly kind: 'told'; readonly events: readonly EventDraft[]; readonly isNew: boolean }
  | BoardUpdate;

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

/** Somebody else judges and tells the alerts, also while no page is open: what is done about one here is done there. */
export type AlertsElsewhere = {
  readonly seen: (key: string) => void;
  readonly putOff: (key: string, untilMs: number) => void;
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
  /** Null, or absent, where the page judges alerts itself. */
  readonly alerts?: AlertsElsewhere | null;
  /** What its board says it runs, and its console; null for a board that has not said that it runs a program of ours. */
  readonly boardAt: (boardId: string) => BoardAtTheLine | null;
  /** The garden has changed. */
  setGarden?(garden: Garden): void;
  start(emit: Emit): void;
  stop(): Promise<void>;
  /** The source's own time, ms since 1970. */
  nowMs(): number;
}
