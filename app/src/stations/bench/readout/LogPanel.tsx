import { useRef, useState } from 'react';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Result } from '@plain-trowel/core/quantity/result';
import {
  isBenchRecording,
  type BenchRecording as BenchRecordingFile,
  type BenchRecordingIssue,
} from '@plain-trowel/core/signal/benchRecording';
import type { SerialLog, SerialLogIssue } from '@plain-trowel/core/signal/serialLog';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { LogSource, type LogSpeed } from '../../../links/logSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { Field } from '../../../ui/Field.tsx';
import { Progress } from '../../../ui/Progress.tsx';
import { runJob, type Job } from '../../../workers/files.ts';
import { benchRecordingText, serialLogText } from '../../../words/issueText.ts';
import { PACES } from './LogHead.tsx';
import { FileInput } from '../../../ui/FileInput.tsx';

const MOST_BYTES = 200e6;

/** Opens a serial log from a file or from pasted lines, with or without time stamps. */
export function LogPanel({ parts, onOpened }: { parts: PlotParts; onOpened: () => void }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const [pasted, setPasted] = useState('');
  const [everyS, setEveryS] = useState('0.5');
  const [pace, setPace] = useState<LogSpeed>('all');
  const [problem, setProblem] = useState<string | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const job = useRef<Job<unknown> | null>(null);
  const fileInput = useRef<HTMLInputElement>(null);
  const boardId = parts.board?.id ?? garden.boards[0]?.id ?? '';
  const intervalMs = Number(everyS.replace(',', '.')) * 1000;
  const intervalIsFine = Number.isFinite(intervalMs) && intervalMs >= 1 && intervalMs <= 86_400_000;

  const play = async (source: LogSource) => {
    source.setSpeed(pace);
    await session.connect(source);
    onOpened();
  };
  const open = async (log: Blob, label: string) => {
    if (log.size > MOST_BYTES) {
      setProblem(
        `The log is ${formatNumber(log.size / 1e6)} MB; up to ${formatNumber(MOST_BYTES / 1e6)} MB can be opened. Cut it into parts.`,
      );
      return;
    }
    setProblem(null);
    setDone(0);
    if (isBenchRecording(await log.slice(0, 400).text())) {
      await openRecording(log, label);
      return;
    }
    const running = runJob<Result<SerialLog, SerialLogIssue>>(
      async (jobs, telling) => await jobs.readLog(log, { startMs: Date.now(), intervalMs }, telling(setDone)),
    );
    job.current = running;
    const read = await running.result.catch(() => undefined);
    setDone(null);
    if (read === undefined)
      setProblem(
        'The log could not be read. Choose it again; if it is on a stick or a share, copy it to this machine first.',
      );
    else if (read && !read.ok) setProblem(`${label}: ${serialLogText(read.issue)}`);
    else if (read) {
      await play(new LogSource(read.value, boardId, label, () => performance.now()));
    }
  };
  const openRecording = async (file: Blob, label: string) => {
    const running = runJob<Result<BenchRecordingFile, BenchRecordingIssue>>(
      async (jobs) => await jobs.readBench(file),
    );
    job.current = running;
    const read = await running.result.catch(() => undefined);
    setDone(null);
    if (read === undefined) setProblem('The recording could not be read. Choose it again.');
    else if (read && !read.ok) setProblem(`${label}: ${benchRecordingText(read.issue)}`);
    else if (read) {
      const { lines, head } = read.value;
      const log = { lines, stamps: 'absolute', simulated: head.simulated } as const;
      await play(new LogSource(log, boardId, label, () => performance.now()));
    }
  };
  if (done !== null)
    return <Progress label="Reading the log" done={done} onCancel={() => job.current?.cancel()} />;
  return (
    <>
      <p className="max-w-[60ch]">
        Lines that your board printed, from a file or pasted, or a bench recording written here. Dates are
        taken as they are; a time of day or an uptime keeps its distances. Without any time stamp the lines
        are taken to be evenly spaced.
      </p>
      <Field
        label="Lines without a time stamp are apart by"
        unit="s"
        className="w-[260px]"
        error={intervalIsFine ? undefined : 'From 0.001 to 86 400 seconds.'}
      >
        {(props) => (
          <input
            {...props}
            inputMode="decimal"
            value={everyS}
            onChange={(event) => setEveryS(event.target.value)}
          />
        )}
      </Field>
      <Field label="Paste lines here" className="w-full">
        {(props) => (
          <textarea
            {...props}
            rows={5}
            value={pasted}
            onChange={(event) => setPasted(event.target.value)}
            spellCheck={false}
            className="field w-full font-mono text-[13.5px]"
          />
        )}
      </Field>
      {problem !== null && (
        <p role="alert" className="border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
      <Choice<LogSpeed> legend="Play" showLegend options={PACES} value={pace} onChange={setPace} />
      <div className="flex flex-wrap gap-3">
        <Button
          look="primary"
          disabled={!intervalIsFine || pasted.trim() === ''}
          onClick={() => void open(new Blob([pasted]), 'Pasted lines')}
        >
          Play the pasted lines
        </Button>
        <Button disabled={!intervalIsFine} onClick={() => fileInput.current?.click()}>
          Open a file
        </Button>
        <FileInput
          ref={fileInput}
          label="Serial log file"
          accept=".txt,.log,.csv,.json,.ndjson,text/*"
          onFile={(file) => void open(file, file.name)}
        />
      </div>
    </>
  );
}
