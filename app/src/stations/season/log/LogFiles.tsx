import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Result } from '@plain-trowel/core/quantity/result';
import type { CsvIssue, CsvReadings } from '@plain-trowel/core/records/readingsCsv';
import { download, fileNameOf } from '../../../data/download.ts';
import { csvChannels, csvRows } from '../../../data/exportReadings.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { recordsKey } from '../../../data/queries.ts';
import { addRecords } from '../../../data/recordStore.ts';
import { database } from '../../../data/services.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Progress } from '../../../ui/Progress.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { csvText } from '../../../words/issueText.ts';
import { progressOf, runJob, type Job } from '../../../workers/files.ts';
import { FileInput } from '../../../ui/FileInput.tsx';

const MOST_BYTES = 200e6;

/** The way out and back in: all readings of the garden as CSV. */
export function LogFiles() {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const client = useQueryClient();
  const [done, setDone] = useState<{ label: string; share: number } | null>(null);
  const job = useRef<Job<unknown> | null>(null);
  const fileInput = useRef<HTMLInputElement>(null);

  const exportAll = async () => {
    await session.flush();
    const rows = await csvRows(await database(), garden);
    if (rows.length === 0) {
      showToast({
        tone: 'problem',
        text: 'There is no reading to export yet. Connect a board on Bench, Readout.',
      });
      return;
    }
    const writing = runJob<string>(async (jobs) => await jobs.writeCsv(rows));
    const text = await writing.result.catch(() => null);
    if (text === null)
      showToast({ tone: 'problem', text: 'The file could not be written. Try again; nothing was changed.' });
    else download(`${fileNameOf(garden.name)}.readings.csv`, text, 'text/csv');
  };

  const takeIn = async (file: File) => {
    if (file.size > MOST_BYTES) {
      showToast({
        tone: 'problem',
        text: `${file.name} is larger than ${formatNumber(MOST_BYTES / 1e6)} MB. Nothing was taken in. Cut it into parts.`,
      });
      return;
    }
    const label = `Reading ${file.name}`;
    setDone({ label, share: 0 });
    const reading = runJob<Result<CsvReadings, CsvIssue>>(
      async (jobs) =>
        await jobs.readCsv(
          file,
          csvChannels(garden),
          progressOf((share) => setDone({ label, share: share * 0.9 })),
        ),
    );
    job.current = reading;
    try {
      const read = await reading.result;
      if (!read) return;
      if (!read.ok) {
        showToast({ tone: 'problem', text: `${file.name}: ${csvText(read.issue)}` });
        return;
      }
      const readings = [...read.value.values()].reduce((sum, list) => sum + list.length, 0);
      const event = {
        kind: 'imported',
        atMs: Math.round(live.nowMs),
        plotId: null,
        simulated: false,
        what: file.name.slice(0, 200),
        readings,
      } as const;
      await addRecords(await database(), garden.id, read.value, [event]);
      await client.invalidateQueries({ queryKey: recordsKey(garden.id) });
      showToast({
        tone: 'done',
        text: `${formatNumber(readings)} readings were taken in from ${file.name}.`,
      });
    } catch {
      showToast({
        tone: 'problem',
        text: `${file.name} could not be taken in; nothing of it was kept. Free some disk space and try again.`,
      });
    } finally {
      setDone(null);
    }
  };
  return (
    <section aria-label="Files" className="mt-5 border-t border-rule pt-3">
      {done ? (
        <Progress label={done.label} done={done.share} onCancel={() => job.current?.cancel()} />
      ) : (
        <div className="flex flex-wrap items-center gap-3">
          <Button onClick={() => void exportAll()}>Export readings as CSV</Button>
          <Button onClick={() => fileInput.current?.click()}>Take in a readings CSV</Button>
          <span className="text-[13.5px] text-soft">
            All plots; the raw counts are the record, the percent is today’s.
          </span>
        </div>
      )}
      <FileInput
        ref={fileInput}
        label="Readings CSV file"
        accept=".csv,text/csv"
        onFile={(file) => void takeIn(file)}
      />
    </section>
  );
}
