import { QueryClient } from '@tanstack/react-query';
import { openDb, type Db } from './db.ts';

let opened: Promise<Db> | null = null;

/** The one open database of this page. */
export const database = (): Promise<Db> => (opened ??= openDb());

// Local data: the default network mode would pause reads while offline, retries only delay the message, and nothing goes stale by
// itself. Whatever writes invalidates the keys it touched.
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { networkMode: 'always', retry: false, staleTime: Infinity, refetchOnWindowFocus: false },
    mutations: { networkMode: 'always' },
  },
});
