/** Where lines come from. A stand-in, a real board on a serial port and a serial log all look alike from here on. */
import type { LineAnswers } from '@plain-trowel/core/control/host/answers';
import type { EventDraft } from '@plain-trowel/core/records/event';

export type Line = { readonly boardId: string; readonly text: string; readonly atMs: number };

export type SourceStatus = 'opening' | 'open' | 'ended' | 'failed';

export type SourceUpdate =
  | { readonly kind: 'lines'; readonly lines: readonly Line[] }
  /** The bytes behind the lines, where a source has some: they tell the speed a board really sends at. */
  | { readonly kind: 'bytes'; readonly bytes: Uint8Array; readonly baudRate: number }
  | { readonly kind: 'status'; readonly status: SourceStatus; readonly message?: string }
  | { readonly kind: 'answers'; readonly answers: LineAnswers }
  | { readonly kind: 'events'; readonly events: readonly EventDraft[] };

export type Emit = (update: SourceUpdate) => void;

export interface LineSource {
  readonly kind: 'stand-in' | 'serial' | 'log';
  readonly label: string;
  /** The readings are not from a real probe. */
  readonly simulated: boolean;
  /** The readings come from a file, not as they happen. */
  readonly fromFile: boolean;
  /** The times of the lines are real enough to be kept in the log. */
  readonly mayRecord: boolean;
  start(emit: Emit): void;
  stop(): Promise<void>;
  /** The source's own time, ms since 1970. */
  nowMs(): number;
}

export const SPEEDS = [1, 10, 60] as const;
export type Speed = (typeof SPEEDS)[number];
