/** What every source of readings comes down to: lines of a serial port or a log, a bus, later a request or a message. */
export type BoardReading = {
  readonly boardId: string;
  /** Its number among the readings of its board; null where the source has none. */
  readonly seq: number | null;
  /** Ms since 1970. */
  readonly atMs: number;
  readonly values: readonly { readonly name: string; readonly value: number }[];
  /** Flags that every value of it is recorded with. */
  readonly flags: number;
  /** Its board delivers readings in bundles, and lets so much time pass between two of them, ms; absent: each comes as it is taken. */
  readonly bundleMs?: number;
};

/** What a source can do; the sheets ask this, never what the source is. */
export type Can = {
  /** Its boards decide by their own engine; else the page works out what they would. */
  readonly decides: boolean;
  /** Its readings may go into the log as they come. */
  readonly records: boolean;
  /** What comes from it happens now, so that alerts are raised and silence means something. */
  readonly isLive: boolean;
};
