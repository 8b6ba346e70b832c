import { lazy, Suspense, useRef, useState } from 'react';
import { download, fileNameOf } from '../../../data/download.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { FileInput } from '../../../ui/FileInput.tsx';
import { Progress } from '../../../ui/Progress.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { countedText } from '../../../words/countedText.ts';
import { leftOutText } from '../../../words/storageText.ts';
import { runJob } from '../../../workers/files.ts';
import { ImportQuestion } from './ImportQuestion.tsx';
import { RowProblems } from './RowProblems.tsx';
import { useTakeIn } from './useTakeIn.ts';

const TableQuestion = lazy(async () => ({
  default: (await import('./table/TableQuestion.tsx')).TableQuestion,
}));

const FORMS = {
  csv: {
    name: 'readings.csv',
    type: 'text/csv',
    nothing: 'There is no reading to export yet. Connect a board on Bench, Readout.',
  },
  senml: {
    name: 'senml.json',
    type: 'application/senml+json',
    nothing:
      'There is no reading of a real probe to export yet. SenML has no word for readings of stand-in boards, so they stay out of it.',
  },
} as const;

/** The way out and back in: all readings of the garden as CSV. */
export function LogFiles() {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const fileInput = useRef<HTMLInputElement>(null);
  const [writing, setWriting] = useState<{ readonly share: number; readonly cancel: () => void } | null>(
    null,
  );
  const { read, done, cancel, question, answer, wrongRows, closeWrongRows, table, takeTable, closeTable } =
    useTakeIn();

  const exportAll = async (form: 'csv' | 'senml') => {
    await session.flush();
    const page = { garden, waiting: session.waiting() };
    const job = runJob((jobs, telling) => {
      const told = telling((share) => setWriting((now) => now && { ...now, share }));
      return form === 'csv' ? jobs.writeCsv(page, told) : jobs.writeSenml(page, told);
    });
    setWriting({ share: 0, cancel: job.cancel });
    const written = await job.result.catch(() => 'failed' as const);
    setWriting(null);
    // It was ended on purpose.
    if (written === null) return;
    if (written === 'failed') {
      showToast({ tone: 'problem', text: 'The file could not be written. Try again; nothing was changed.' });
      return;
    }
    const { file, damagedDays } = written;
    const { name, type } = FORMS[form];
    if (file) download(`${fileNameOf(garden.name)}.${name}`, file, type);
    const leftOut = leftOutText({ days: damagedDays, events: 0, photos: 0 });
    if (leftOut !== null)
      showToast({
        tone: 'problem',
        text: file
          ? `The file was saved, but ${leftOut}`
          : `There is no reading that can be exported: ${countedText({ days: damagedDays })} could not be read. The log names the days.`,
      });
    else if (!file) showToast({ tone: 'problem', text: FORMS[form].nothing });
  };
  return (
    <section aria-label="Files" className="mt-5 border-t border-rule pt-3">
      {done ? (
        <Progress label={done.label} done={done.share} onCancel={cancel} />
      ) : writing ? (
        <Progress label="Writing the readings" done={writing.share} onCancel={writing.cancel} />
      ) : (
        <div className="flex flex-wrap items-center gap-3">
          <Button onClick={() => void exportAll('csv')}>Export readings as CSV</Button>
          <Button onClick={() => void exportAll('senml')}>As SenML</Button>
          <Button onClick={() => fileInput.current?.click()}>Take in readings from a file</Button>
          <span className="text-[13.5px] text-soft">
            Out go all plots; the raw counts are the record, the percent in the CSV is today’s; SenML holds
            real probes alone. In comes such a file; also any table with times, a serial log with dates or
            SenML, and what they mean is shown first.
          </span>
        </div>
      )}
      <FileInput
        ref={fileInput}
        label="Readings CSV file"
        accept=".csv,.tsv,.txt,.log,.json,.senml,text/csv,text/tab-separated-values,text/plain,application/json,application/senml+json"
        onFile={read}
      />
      {question && (
        <ImportQuestion
          fileName={question.fileName}
          preview={question.preview}
          garden={garden}
          onAnswer={answer}
        />
      )}
      {table && (
        <Suspense>
          <TableQuestion table={table} garden={garden} onTake={takeTable} onClose={closeTable} />
        </Suspense>
      )}
      {wrongRows && <RowProblems {...wrongRows} onClose={closeWrongRows} />}
    </section>
  );
}
