import { useRef, useState } from 'react';
import { tableChannels } from '@plain-trowel/core/garden/bind/tableChannels';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { OnClash } from '@plain-trowel/core/records/mergeDay';
import type { RowProblem } from '@plain-trowel/core/records/readingsCsv';
import { FLAGS, type DayBlock, type Incoming } from '@plain-trowel/core/records/series';
import { csvChannels } from '../../../data/exportReadings.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { previewImport, type ImportPreview } from '../../../data/recordsImport.ts';
import { database } from '../../../data/services.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import type { LogSource } from '../../../links/logSource.ts';
import { showToast } from '../../../ui/toasts.ts';
import { noTableText } from '../../../words/tableText.ts';
import type { OpenTable } from './table/openTable.ts';
import { csvText } from '../../../words/issueText.ts';
import { takenInText } from '../../../words/importText.ts';
import { runJob, type Job } from '../../../workers/files.ts';

/** A year of twelve channels at a reading a minute as this program writes it; read in, one of 260 MB takes 750 MB of memory. */
const MOST_BYTES = 400e6;

type Question = {
  readonly fileName: string;
  readonly encoding: string;
  readonly readings: Incoming;
  readonly preview: ImportPreview;
};

export type WrongRows = {
  readonly title: string;
  readonly problems: readonly RowProblem[];
  readonly more: number;
};

/** Taking in a readings CSV or a log that is open: read in a worker, compared with the record, asked where it differs, kept as one step. */
export function useTakeIn() {
  const { garden, takeIn, undo } = useGarden();
  const { session } = useLiveTools();
  const [done, setDone] = useState<{ label: string; share: number } | null>(null);
  const [question, setQuestion] = useState<Question | null>(null);
  const [table, setTable] = useState<OpenTable | null>(null);
  const [wrongRows, setWrongRows] = useState<WrongRows | null>(null);
  const job = useRef<Job<unknown> | null>(null);
  const problem = (text: string) => showToast({ tone: 'problem', text });

  const keep = async (of: Question, onClash: OnClash) => {
    const nowMs = Math.round(session.getSnapshot().nowMs);
    const { readings, preview, fileName, encoding } = of;
    const outcome = await takeIn(`take in ${fileName}`, {
      readings,
      events: [],
      onClash,
      what: fileName,
      nowMs,
    });
    if (!outcome) return;
    showToast({
      tone: 'done',
      text: takenInText(fileName, outcome, preview, encoding),
      action: { label: 'Undo', run: () => void undo() },
    });
  };

  const answer = (onClash: OnClash | null) => {
    const asked = question;
    setQuestion(null);
    if (asked && onClash !== null) void keep(asked, onClash);
  };

  /** Compares what was read with the record, asks where they differ, and keeps it. */
  const offer = async (fileName: string, encoding: string, readings: Incoming) => {
    // What waits is part of the record that the file is held against.
    await session.flush();
    const preview = await previewImport(await database(), garden.id, readings, [], (share) =>
      setDone((now) => now && { label: `Comparing ${fileName} with the record`, share: 0.7 + share * 0.3 }),
    );
    const asked = { fileName, encoding, readings, preview };
    if (preview.clashes + preview.inside > 0) setQuestion(asked);
    else if (preview.fresh === 0)
      showToast({
        tone: 'done',
        text: `${fileName}: 0 new readings. ${preview.same === 0 ? 'It holds none of this garden’s channels' : `All ${formatNumber(preview.same)} are in the log already`}; nothing was changed.`,
      });
    else await keep(asked, 'keep');
  };

  /** Runs the reading of a file to its end; whatever goes wrong on the way is told. */
  const guarded = async (fileName: string, work: () => Promise<void>) => {
    setDone({ label: `Reading ${fileName}`, share: 0 });
    try {
      await work();
    } catch {
      problem(`${fileName} could not be read; nothing of it was kept. Choose it again.`);
    } finally {
      setDone(null);
    }
  };

  const read = async (file: File) => {
    if (file.size > MOST_BYTES) {
      problem(
        `${file.name} is larger than ${formatNumber(MOST_BYTES / 1e6)} MB. Nothing was taken in. Cut it into parts.`,
      );
      return;
    }
    await guarded(file.name, async () => {
      const label = `Reading ${file.name}`;
      const reading = runJob(
        async (jobs, telling) =>
          await jobs.openTable(
            file,
            csvChannels(garden),
            { channels: tableChannels(garden), timeZone: garden.timeZone, nowMs: Date.now() },
            telling((share) => setDone((now) => now && { label, share: share * 0.7 })),
          ),
      );
      job.current = reading;
      const result = await reading.result;
      if (!result) return;
      if (result.kind === 'table') {
        const { guess, front, encoding, form } = result;
        if (guess.ok) setTable({ file, form, encoding, guess: guess.value, front });
        else problem(`${file.name}: ${noTableText(guess.issue)}`);
        return;
      }
      if (result.read.ok) {
        await offer(file.name, result.encoding, result.read.value);
        return;
      }
      const { issue } = result.read;
      if (issue.kind === 'rows') setWrongRows({ title: `${file.name}: ${csvText(issue)}`, ...issue });
      else problem(`${file.name}: ${csvText(issue)}`);
    });
  };

  const readLog = (source: LogSource) =>
    guarded(source.label, async () => {
      const flags = FLAGS.imported | (source.simulated ? FLAGS.simulated : 0);
      const reading = runJob(async (jobs) => await jobs.logReadings(garden, source.boardLines(), flags));
      job.current = reading;
      const readings = await reading.result;
      if (readings) await offer(source.label, 'UTF-8', readings);
    });
  const takeTable = (days: readonly DayBlock[]) => {
    const open = table;
    setTable(null);
    if (open) void guarded(open.file.name, () => offer(open.file.name, open.encoding, days));
  };
  return {
    table,
    takeTable,
    closeTable: () => setTable(null),
    read: (file: File) => void read(file),
    readLog: (source: LogSource) => void readLog(source),
    done,
    cancel: () => job.current?.cancel(),
    question,
    answer,
    wrongRows,
    closeWrongRows: () => setWrongRows(null),
  };
}
