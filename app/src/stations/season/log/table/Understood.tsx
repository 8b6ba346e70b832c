import { byId } from '@plain-trowel/core/quantity/byId';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { clockTime, fullDay } from '@plain-trowel/core/quantity/timeText';
import { tableChannels } from '@plain-trowel/core/garden/bind/tableChannels';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { columnOf } from '@plain-trowel/core/tables/columnNames';
import type { Layout, LeftOut, Question } from '@plain-trowel/core/tables/layout';
import type { ReadCell, TableRead } from '@plain-trowel/core/tables/readTable';
import { leftOutText, tableProblemText } from '../../../../words/tableText.ts';
import { channelLabel } from './editing.ts';

const SHOWN = 4;

/** What the table gives when it is read so: its first readings, how many, what is left out, and the rows that are wrong. */
export function Understood({
  read,
  share,
  failed,
  leftOut,
  layout,
  questions,
  garden,
}: {
  read: TableRead | null;
  share: number;
  failed: boolean;
  leftOut: readonly LeftOut[];
  layout: Layout;
  questions: readonly Question[];
  garden: Garden;
}) {
  if (failed)
    return (
      <p role="alert" className="mt-4">
        The file could not be read to its end. Choose it again.
      </p>
    );
  if (!read) return <p className="mt-4 text-soft">Reading the table, {formatNumber(share * 100)} % …</p>;
  const wrong = read.problems.length + read.more;
  return (
    <section aria-label="What it gives" className="mt-4">
      {read.readings === 0 ? (
        <p>No column is taken for a channel of the garden yet, or none of them holds a number.</p>
      ) : (
        <>
          <p>
            <b className="num">{formatNumber(read.readings)}</b>{' '}
            {read.readings === 1 ? 'reading' : 'readings'} of{' '}
            {new Set(read.days.map(({ channelId }) => channelId)).size === 1
              ? 'one channel'
              : `${new Set(read.days.map(({ channelId }) => channelId)).size} channels`}
            , {daysText(read, garden.timeZone)}
            {read.nothing > 0 && `; ${formatNumber(read.nothing)} cells hold no number and are left out`}.
          </p>
          <FirstReadings cells={read.first} garden={garden} />
          <FirstHourNote read={read} />
        </>
      )}
      <LeftOutNote layout={layout} questions={questions} leftOut={leftOut} />
      {wrong > 0 && (
        <div role="alert" className="mt-3 border-l-4 border-handle pl-3">
          <p className="font-semibold">
            {wrong === 1 ? 'One row cannot be read' : `${formatNumber(wrong)} rows cannot be read`}, so
            nothing is taken in. Change how the table is read, or correct the file.
          </p>
          <ul className="mt-1 text-[14px]">
            {read.problems.map((problem) => (
              <li key={`${problem.line} ${problem.kind}`} className="wrap-anywhere">
                Row <span className="num">{formatNumber(problem.line)}</span>: {tableProblemText(problem)}
              </li>
            ))}
            {read.more > 0 && <li>and {formatNumber(read.more)} more</li>}
          </ul>
        </div>
      )}
    </section>
  );
}

/** Where the clocks were put back in the hour of the first row, which of the two hours it was taken for. */
function FirstHourNote({ read: { firstHour, first } }: { read: TableRead }) {
  const [one] = first;
  if (firstHour === 'nearer' || !one) return null;
  const utc = <span className="num">{clockTime(one.timeMs, 'UTC')} UTC</span>;
  return (
    <p className="mt-2 max-w-[72ch] border-l-[3px] border-handle pl-3 text-[14px]">
      The clocks were put back that night, so the hour of the first row came twice.{' '}
      {firstHour === 'further' ? (
        <>It is taken for {utc}: only then do the rows keep their usual distance.</>
      ) : (
        <>
          Nothing in the table tells which of the two it is. It is taken for {utc}; if it was the other one,
          the rows of that hour stand an hour off.
        </>
      )}
    </p>
  );
}

function daysText({ fromMs, toMs }: TableRead, timeZone: string): string {
  const [from, to] = [fullDay(fromMs ?? 0, timeZone), fullDay(toMs ?? 0, timeZone)];
  return from === to ? `taken on ${from}` : `from ${from} to ${to}`;
}

function FirstReadings({ cells, garden }: { cells: readonly ReadCell[]; garden: Garden }) {
  const channels = tableChannels(garden);
  return (
    <table className="mt-2 text-[14px]">
      <thead>
        <tr>
          <th className="text-right">Row</th>
          <th>Taken</th>
          <th>Channel</th>
          <th className="text-right">Recorded as</th>
        </tr>
      </thead>
      <tbody>
        {cells.slice(0, SHOWN).map(({ line, timeMs, channelId, raw }) => {
          const channel = byId(channels, channelId);
          return (
            <tr key={`${line} ${channelId}`}>
              <td className="num text-right text-soft">{line}</td>
              <td className="num">
                {fullDay(timeMs, garden.timeZone)}, {clockTime(timeMs, garden.timeZone)}
              </td>
              <td>{channel ? channelLabel(channel) : channelId}</td>
              <td className="num text-right">
                {raw} <span className="text-soft">{channel?.unit}</span>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Columns that are taken in nowhere, as things stand, with the reason where it was none of the person's; one that is asked about is not left out yet. */
function LeftOutNote({
  layout,
  questions,
  leftOut,
}: {
  layout: Layout;
  questions: readonly Question[];
  leftOut: readonly LeftOut[];
}) {
  const isAsked = (column: number) =>
    questions.some((one) =>
      'column' in one ? one.column === column : 'columns' in one && one.columns.includes(column),
    );
  const left = layout.columns.flatMap(({ name, role }, column) => {
    if (role.kind !== 'leave-out' || isAsked(column)) return [];
    const called = columnOf(name, []).name;
    const known = name === '' ? undefined : leftOut.find((one) => one.name === called || one.name === name);
    return [known ? leftOutText(known) : name || `column ${column + 1}`];
  });
  return left.length === 0 ? null : (
    <p className="mt-2 max-w-[72ch] text-[14px] text-soft">Left out: {left.join('; ')}.</p>
  );
}
