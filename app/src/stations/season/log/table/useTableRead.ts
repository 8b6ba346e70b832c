import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Layout } from '@plain-trowel/core/tables/layout';
import type { RecordedAs, TableRead } from '@plain-trowel/core/tables/readTable';
import type { OpenTable } from './openTable.ts';
import { runJob } from '../../../../workers/files.ts';

/** A whole table read by its layout, in a worker; a layout that changed meanwhile ends the reading under way. */
export function useTableRead(
  { file, form }: Pick<OpenTable, 'file' | 'form'>,
  layout: Layout,
  channels: readonly RecordedAs[],
): { readonly read: TableRead | null; readonly share: number; readonly failed: boolean } {
  const [share, setShare] = useState(0);
  const { data, isError } = useQuery({
    queryKey: ['table', file.name, file.size, file.lastModified, layout],
    queryFn: async ({ signal }) => {
      const job = runJob(async (jobs, telling) =>
        jobs.readTable(file, form, layout, channels, telling(setShare)),
      );
      signal.addEventListener('abort', job.cancel);
      const read = await job.result;
      if (read === null) throw new Error('ended');
      return read;
    },
    // Columns of a million numbers are not compared one by one, nor kept.
    structuralSharing: false,
    gcTime: 0,
    retry: false,
  });
  return { read: data ?? null, share, failed: isError };
}
