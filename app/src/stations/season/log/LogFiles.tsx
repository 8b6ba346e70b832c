import { lazy, Suspense, useRef } from 'react';
import { download, fileNameOf } from '../../../data/download.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { FileInput } from '../../../ui/FileInput.tsx';
import { Progress } from '../../../ui/Progress.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { runJob } from '../../../workers/files.ts';
import { ImportQuestion } from './ImportQuestion.tsx';
import { RowProblems } from './RowProblems.tsx';
import { useTakeIn } from './useTakeIn.ts';

const TableQuestion = lazy(async () => ({
  default: (await import('./table/TableQuestion.tsx')).TableQuestion,
}));

/** The way out and back in: all readings of the garden as CSV. */
export function LogFiles() {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const fileInput = useRef<HTMLInputElement>(null);
  const { read, done, cancel, question, answer, wrongRows, closeWrongRows, table, takeTable, closeTable } =
    useTakeIn();

  const exportAll = async () => {
    await session.flush();
    const writing = runJob(async (jobs) => ({ csv: await jobs.writeCsv(garden) }));
    const written = await writing.result.catch(() => null);
    if (written === null)
      showToast({ tone: 'problem', text: 'The file could not be written. Try again; nothing was changed.' });
    else if (written.csv === null)
      showToast({
        tone: 'problem',
        text: 'There is no reading to export yet. Connect a board on Bench, Readout.',
      });
    else download(`${fileNameOf(garden.name)}.readings.csv`, written.csv, 'text/csv');
  };
  return (
    <section aria-label="Files" className="mt-5 border-t border-rule pt-3">
      {done ? (
        <Progress label={done.label} done={done.share} onCancel={cancel} />
      ) : (
        <div className="flex flex-wrap items-center gap-3">
          <Button onClick={() => void exportAll()}>Export readings as CSV</Button>
          <Button onClick={() => fileInput.current?.click()}>Take in readings from a file</Button>
          <span className="text-[13.5px] text-soft">
            Out go all plots; the raw counts are the record, the percent is today’s. In comes such a file, or
            any table with times: what its columns mean is shown first.
          </span>
        </div>
      )}
      <FileInput
        ref={fileInput}
        label="Readings CSV file"
        accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values"
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
