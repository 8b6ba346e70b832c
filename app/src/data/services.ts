import { QueryClient } from '@tanstack/react-query';
import { openDb, type Db } from './db.ts';
import { problemOf, StorageError } from './storageProblem.ts';

/** How long an open may take before it is said that storage does not answer, ms. It is waited for all the same. */
const PATIENCE_MS = 8000;

let opened: Promise<Db> | null = null;

/**
 * The one open database of this page; opened again when the connection was ended from outside.
 * @throws StorageError with what is wrong
 */
export async function database(): Promise<Db> {
  if (typeof indexedDB === 'undefined') throw new StorageError('blocked');
  opened ??= open();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new StorageError('no-answer')), PATIENCE_MS);
  });
  try {
    return await Promise.race([opened, late]);
  } finally {
    clearTimeout(timer);
  }
}

function open(): Promise<Db> {
  const forget = () => {
    if (opened === opening) opened = null;
  };
  const opening: Promise<Db> = openDb(undefined, forget).catch((error: unknown) => {
    forget();
    const problem = problemOf(error);
    // A page that may not store anything is refused in several ways; only a version says something else.
    throw new StorageError(problem === 'newer' || problem === 'full' ? problem : 'blocked', { cause: error });
  });
  return opening;
}

// Local data: the default network mode would pause reads while offline, retries only delay the message, and nothing goes stale by
// itself. Whatever writes invalidates the keys it touched.
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { networkMode: 'always', retry: false, staleTime: Infinity, refetchOnWindowFocus: false },
    mutations: { networkMode: 'always' },
  },
});
