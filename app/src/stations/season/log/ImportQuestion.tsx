import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { OnClash } from '@plain-trowel/core/records/mergeDay';
import type { ImportPreview } from '../../../data/recordsImport.ts';
import { Button } from '../../../ui/Button.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { ClashTable } from './ClashTable.tsx';

/** A file says something else than the record: how much, some of it, and what is to be done. Nothing is written before an answer. */
export function ImportQuestion({
  fileName,
  preview,
  garden,
  onAnswer,
}: {
  fileName: string;
  preview: ImportPreview;
  garden: Garden;
  onAnswer: (answer: OnClash | null) => void;
}) {
  const { clashes, inside, fresh } = preview;
  return (
    <Dialog
      open
      wide
      onClose={() => onAnswer(null)}
      title={clashes > 0 ? `${fileName} differs from the record` : `${fileName} contradicts itself`}
      description="What is recorded is never changed. Nothing has been imported yet."
    >
      {clashes > 0 && (
        <ClashTable
          title={`${countText(clashes)} the file ${clashes === 1 ? 'has a time that is' : 'have times that are'} recorded with another value`}
          columns={['Recorded', 'In the file']}
          clashes={preview.firstClashes}
          total={clashes}
          garden={garden}
        />
      )}
      {inside > 0 && (
        <ClashTable
          title={`${countText(inside)} the file ${inside === 1 ? 'contradicts another' : 'contradict others'} of the same time in it`}
          columns={['First in the file', 'Later in the file']}
          clashes={preview.firstInside}
          total={inside}
          garden={garden}
        />
      )}
      <p className="mt-3">
        Besides these, the file has <b className="num">{formatNumber(fresh)}</b> new{' '}
        {fresh === 1 ? 'reading' : 'readings'}.
      </p>
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="primary" onClick={() => onAnswer('keep')}>
          {clashes > 0 ? 'Keep mine, import only what is new' : 'Keep the first of each'}
        </Button>
        <Button onClick={() => onAnswer('beside')}>
          {clashes > 0 ? 'Keep both, theirs marked' : 'Keep both, the later one marked'}
        </Button>
        <Button look="quiet" onClick={() => onAnswer(null)}>
          Cancel
        </Button>
      </div>
      <p className="mt-2 text-[13.5px] text-soft">
        A marked reading decides nothing and is not drawn; it is listed in the table of readings and in every
        export.
      </p>
    </Dialog>
  );
}

const countText = (count: number) => `${formatNumber(count)} ${count === 1 ? 'reading' : 'readings'} of`;
