import { useEffect, useState } from 'react';
import { runJob } from '../../../workers/files.ts';

export type Tidying = { readonly done: number; readonly all: number };

/** Packs the days that are over in a worker, once the log is looked at; null while nothing of it is under way. What ends it half way loses nothing, and it goes on the next time. */
export function useTidy(gardenId: string): Tidying | null {
  const [tidying, setTidying] = useState<Tidying | null>(null);
  useEffect(() => {
    const job = runJob(async (jobs, telling) =>
      jobs.tidyDays(
        gardenId,
        telling((done: number, all: number) => setTidying({ done, all })),
      ),
    );
    // Storage that is full or gone is told elsewhere: the days stay as they are, and are read as they are.
    void job.result.catch(() => null).then(() => setTidying(null));
    return job.cancel;
  }, [gardenId]);
  return tidying;
}
