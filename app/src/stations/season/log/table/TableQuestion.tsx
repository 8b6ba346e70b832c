import { useState } from 'react';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { tableChannels } from '@plain-trowel/core/garden/bind/tableChannels';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { DayBlock } from '@plain-trowel/core/records/series';
import type { FileForm } from '@plain-trowel/core/tables/otherForms';
import type { OpenTable } from './openTable.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Dialog } from '../../../../ui/Dialog.tsx';
import { ColumnRoles } from './ColumnRoles.tsx';
import { NameRoles } from './NameRoles.tsx';
import { OpenQuestions } from './OpenQuestions.tsx';
import { TableForms } from './TableForms.tsx';
import { Understood } from './Understood.tsx';
import { useTableRead } from './useTableRead.ts';

const FORMS: Readonly<Record<FileForm, string>> = {
  table: 'It was written by another program.',
  senml: 'It is SenML, shown here as a table.',
  'serial-log': 'It is a serial log with dates, shown here as a table.',
};

/** A table that another program wrote: how it would be read, what it leaves open, and what that gives. Nothing is written before an answer. */
export function TableQuestion({
  table,
  garden,
  onTake,
  onClose,
}: {
  table: OpenTable;
  garden: Garden;
  onTake: (days: readonly DayBlock[]) => void;
  onClose: () => void;
}) {
  const [layout, setLayout] = useState(table.guess.layout);
  const [questions, setQuestions] = useState(table.guess.questions);
  const channels = tableChannels(garden);
  const { read, share, failed } = useTableRead(table, layout, channels);
  const wrong = read ? read.problems.length + read.more : 0;
  const canTake = read !== null && read.readings > 0 && wrong === 0 && questions.length === 0;
  const of = { layout, setLayout, questions, setQuestions, channels };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`How to read ${table.file.name}`}
      description={`${FORMS[table.form]} Nothing has been taken in yet: look whether each column means what it says here.`}
    >
      <OpenQuestions of={of} />
      <ColumnRoles of={of} front={table.front} />
      {layout.columns.some(({ role }) => role.kind === 'name') && (
        <NameRoles of={of} others={read?.otherNames ?? new Map()} />
      )}
      <TableForms of={of} front={table.front} garden={garden} />
      <Understood
        read={read}
        share={share}
        failed={failed}
        leftOut={table.guess.leftOut}
        layout={layout}
        questions={questions}
        garden={garden}
      />
      <div className="sticky -bottom-6 -mb-6 flex flex-wrap items-center gap-3 border-t border-rule bg-paper py-3">
        <Button look="primary" disabled={!canTake} onClick={() => read && onTake(read.days)}>
          {read && read.readings > 0
            ? `Take in ${formatNumber(read.readings)} ${read.readings === 1 ? 'reading' : 'readings'}`
            : 'Take in'}
        </Button>
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
        {questions.length > 0 && (
          <span className="text-[14px] text-soft">
            {questions.length === 1 ? 'One question is open.' : `${questions.length} questions are open.`}
          </span>
        )}
      </div>
    </Dialog>
  );
}
