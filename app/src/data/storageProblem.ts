/** What can be wrong with the browser's storage, each told apart so that each gets its own true sentence. */
export type StorageProblem =
  /** The disk, or what the browser allows this site, is full. */
  | 'full'
  /** The connection was ended from outside: stored data cleared, or another tab runs a newer version. */
  | 'closed'
  /** The garden is gone from storage though it is open here. */
  | 'gone'
  /** Another tab runs a version with a newer layout; this page must be loaded again. */
  | 'newer'
  /** The browser gives this page no storage at all. */
  | 'blocked'
  /** Storage was asked and has not answered. */
  | 'no-answer'
  /** Anything else: the browser's own files are damaged or unreadable. */
  | 'failed';

/** An error of storage with the problem it stands for. */
export class StorageError extends Error {
  override readonly name = 'StorageError';
  constructor(
    readonly problem: StorageProblem,
    options?: ErrorOptions,
  ) {
    super(problem, options);
  }
}

const BY_NAME: Readonly<Record<string, StorageProblem>> = {
  QuotaExceededError: 'full',
  InvalidStateError: 'closed',
  TransactionInactiveError: 'closed',
  NotFoundError: 'newer',
  VersionError: 'newer',
  SecurityError: 'blocked',
};

/** The problem that an error stands for. */
export function problemOf(error: unknown): StorageProblem {
  if (error instanceof StorageError) return error.problem;
  const name = error instanceof Error || error instanceof DOMException ? error.name : '';
  return BY_NAME[name] ?? 'failed';
}
