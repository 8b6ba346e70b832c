import { useEffect } from 'react';
import { readerOf } from '../../../data/records.ts';

/** The sheet stands first, and whatever was pressed meanwhile. */
const WAIT_MS = 500;

/** While somebody looks at a log, what long spans of its channels are drawn from is read, so that years of them open at once. */
export function useReadAhead(gardenId: string, channelIds: readonly string[]): void {
  const listed = channelIds.join('\n');
  useEffect(() => {
    let isOver = false;
    const readAll = async () => {
      for (const id of listed.split('\n')) {
        if (isOver) return;
        // What cannot be read is told when it is to be shown.
        await readerOf(gardenId)
          .readAhead(id)
          .catch(() => undefined);
      }
    };
    const timer = setTimeout(() => void readAll(), WAIT_MS);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [gardenId, listed]);
}
