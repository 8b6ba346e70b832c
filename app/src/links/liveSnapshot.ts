import type { ContactAnswers, LineAnswers } from '@plain-trowel/core/control/host/answers';
import type { SignalRule } from '@plain-trowel/core/control/signals';
import type { LineFault } from '@plain-trowel/core/faults/lineFaults';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import type { ActiveAlert, PendingAlert } from '@plain-trowel/core/live/alertWatch';
import type { RecorderState } from '@plain-trowel/core/live/recorder';
import type { Silence } from '@plain-trowel/core/live/silence';
import type { StreamInfo } from '@plain-trowel/core/live/streams';
import type { Settling } from '@plain-trowel/core/settling/settlingWatch';
import type { PresentValue } from '@plain-trowel/core/signal/presentValue';
import type { StorageProblem } from '../data/storageProblem.ts';
import type { LinesRead } from './lineReader.ts';
import type { LineSource, SourceStatus } from './lineSource.ts';

/** All that the sheets show of what comes in, at one moment. */
export type LiveSnapshot = LinesRead & {
  readonly source: LineSource | null;
  readonly status: SourceStatus | 'none';
  readonly message: string | null;
  readonly recording: boolean;
  /** Time of the source, or of the page while none is open, ms since 1970. */
  readonly nowMs: number;
  readonly streams: readonly StreamInfo[];
  /** Names beyond those that are kept. */
  readonly moreStreams: number;
  /** Of every channel that something comes from. */
  readonly present: ReadonlyMap<string, PresentValue>;
  /** Of every channel that has fallen silent. */
  readonly silent: ReadonlyMap<string, Silence>;
  /** Of every moisture channel that something comes from. */
  readonly settling: ReadonlyMap<string, Settling>;
  readonly faults: ReadonlyMap<string, readonly StreamFault[]>;
  readonly lineFault: LineFault | null;
  /** Lines of the bench recording under way and since when; null while none is. */
  readonly benchRecording: {
    readonly lines: number;
    readonly sinceMs: number;
    /** A reload would lose what came last. */
    readonly isAtRisk: boolean;
  } | null;
  /** By water line. */
  readonly answers: LineAnswers;
  /** By contact. */
  readonly contactAnswers: ContactAnswers;
  /** What the lamp of each plot says, by plot; none while nothing is connected. */
  readonly signals: Readonly<Record<string, SignalRule>>;
  readonly alerts: readonly ActiveAlert[];
  /** Alerts that have begun and are not told yet. */
  readonly pendingAlerts: readonly PendingAlert[];
  readonly recorder: RecorderState<StorageProblem>;
  /** The source's clock says a time that no garden has, so nothing is recorded. */
  readonly clockIsWrong: boolean;
};
