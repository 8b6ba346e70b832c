import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { RowProblem } from '@plain-trowel/core/records/readingsCsv';
import { Dialog } from '../../../ui/Dialog.tsx';
import { Button } from '../../../ui/Button.tsx';
import { rowProblemText } from '../../../words/issueText.ts';

/** The rows of a file that cannot be taken in, by their line in the file. */
export function RowProblems({
  title,
  problems,
  more,
  onClose,
}: {
  title: string;
  problems: readonly RowProblem[];
  more: number;
  onClose: () => void;
}) {
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={title}
      description="Correct these rows in the file and choose it again."
    >
      <table className="w-full">
        <thead>
          <tr>
            <th className="w-[90px] text-right">Row</th>
            <th>What is wrong</th>
          </tr>
        </thead>
        <tbody>
          {problems.map((problem) => (
            <tr key={problem.row}>
              <td className="num text-right">{formatNumber(problem.row)}</td>
              <td className="wrap-anywhere">{rowProblemText(problem)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {more > 0 && (
        <p className="mt-1 text-soft">
          and {more >= 990 ? 'at least ' : ''}
          {formatNumber(more)} more {more === 1 ? 'row' : 'rows'}
        </p>
      )}
      <div className="mt-4">
        <Button look="primary" onClick={onClose}>
          Close
        </Button>
      </div>
    </Dialog>
  );
}
