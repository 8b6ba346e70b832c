import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { csvRecords } from '@plain-trowel/core/records/csv';
import { timeForms, unanswered } from '@plain-trowel/core/tables/edit';
import { roleColumns, type TimeForm } from '@plain-trowel/core/tables/layout';
import { Choice } from '../../../../ui/Choice.tsx';
import { Select } from '../../../../ui/Select.tsx';
import { TIME_FORMS } from '../../../../words/tableText.ts';
import type { Editing } from './editing.ts';

const LOOKED_ROWS = 200;

/** How times and numbers are written in the table, and whose clocks its times are of. */
export function TableForms({ of, front, garden }: { of: Editing; front: string; garden: Garden }) {
  const { layout, setLayout, questions, setQuestions } = of;
  const [at = -1] = [...roleColumns(layout, 'time'), ...roleColumns(layout, 'day')];
  const cells: string[] = [];
  for (const record of csvRecords(front, layout.delimiter)) {
    if (record.line <= layout.headerLine) continue;
    const cell = (record.cells[at] ?? '').trim();
    if (cell !== '') cells.push(cell);
    if (cells.length === LOOKED_ROWS) break;
  }
  const forms = new Set<TimeForm>([...timeForms(cells), layout.time]);
  return (
    <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3">
      <Select<TimeForm>
        label="Times are written as"
        value={layout.time}
        groups={[{ name: '', options: [...forms].map((value) => ({ value, label: TIME_FORMS[value] })) }]}
        onChange={(time) => {
          setLayout({ ...layout, time });
          setQuestions(unanswered(questions, 'order'));
        }}
      />
      {layout.time !== 'since-1970' && (
        <Select
          label="Times without an offset are"
          value={layout.timeZone}
          groups={[{ name: '', options: zones(garden.timeZone, layout.timeZone) }]}
          onChange={(timeZone) => setLayout({ ...layout, timeZone })}
        />
      )}
      <Choice
        legend="Before decimals stands a"
        showLegend
        options={[
          { value: '.', label: 'point' },
          { value: ',', label: 'comma' },
        ]}
        value={layout.decimal}
        onChange={(decimal) => {
          setLayout({ ...layout, decimal });
          setQuestions(unanswered(questions, 'decimal'));
        }}
      />
    </div>
  );
}

/** The garden's own clocks, UTC, and whole hours from it: clocks that are never changed, as loggers have. */
function zones(own: string, chosen: string): { value: string; label: string }[] {
  const offsets = Array.from({ length: 25 }, (_, at) => at - 11).filter((hours) => hours !== 0);
  const all = [
    { value: own, label: `${own.replaceAll('_', ' ')}, as the garden` },
    { value: 'UTC', label: 'UTC' },
    ...offsets.map((hours) => {
      const value = `${hours < 0 ? '-' : '+'}${String(Math.abs(hours)).padStart(2, '0')}:00`;
      return { value, label: `UTC${value}, all year` };
    }),
  ];
  const known = all.filter(({ value }, at) => all.findIndex((one) => one.value === value) === at);
  return known.some(({ value }) => value === chosen)
    ? known
    : [
        ...known,
        { value: chosen, label: chosen.startsWith('+') || chosen.startsWith('-') ? `UTC${chosen}` : chosen },
      ];
}
