import { csvRecords } from '@plain-trowel/core/records/csv';
import { columnOf } from '@plain-trowel/core/tables/columnNames';
import { timeForms } from '@plain-trowel/core/tables/edit';
import type { Role } from '@plain-trowel/core/tables/layout';
import { PRINTED, turnInto, unitsFor } from '@plain-trowel/core/tables/units';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { channelLabel, giveRole, type Editing } from './editing.ts';

const SHOWN_ROWS = 5;

/** The first rows of the table as they stand in the file, and above each column what it is taken for. */
export function ColumnRoles({ of, front }: { of: Editing; front: string }) {
  const { layout } = of;
  const rows: { line: number; cells: readonly string[] }[] = [];
  for (const { line, cells } of csvRecords(front.replace(/^\ufeff/, ''), layout.delimiter)) {
    if (line <= layout.headerLine) continue;
    rows.push({ line, cells });
    if (rows.length === SHOWN_ROWS) break;
  }
  return (
    <Scroll label="Columns of the table" className="border border-rule">
      <table className="text-[13.5px]">
        <thead>
          <tr>
            <th className="text-right">Row</th>
            {layout.columns.map(({ name }, at) => (
              <th key={at} className="min-w-[150px] align-bottom">
                <span className="block max-w-[220px] wrap-anywhere">{name || `Column ${at + 1}`}</span>
                <RoleSelect of={of} column={at} cells={rows.map(({ cells }) => (cells[at] ?? '').trim())} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ line, cells }) => (
            <tr key={line}>
              <td className="num text-right text-soft">{line}</td>
              {layout.columns.map(({ role }, at) => (
                <td key={at} className={role.kind === 'leave-out' ? 'num text-soft' : 'num'}>
                  <span className="block max-w-[220px] truncate">{cells[at] ?? ''}</span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}

const ROLES: readonly (readonly [Exclude<Role['kind'], 'channel'>, string])[] = [
  ['leave-out', 'leave out'],
  ['time', 'time, with its day'],
  ['day', 'day'],
  ['clock', 'time of day'],
  ['name', 'says which probe'],
  ['value', 'the number of that probe'],
];

function RoleSelect({ of, column, cells }: { of: Editing; column: number; cells: readonly string[] }) {
  const { layout, channels } = of;
  const one = layout.columns[column];
  if (!one) return null;
  const { name, role } = one;
  const { unit } = columnOf(name, cells);
  const called = name || `Column ${column + 1}`;
  const give = (value: string) => {
    const channel = channels.find(({ id }) => id === value);
    if (channel) {
      giveRole(of, column, { kind: 'channel', channelId: channel.id, unit });
      return;
    }
    const kind = ROLES.find(([other]) => other === value)?.[0] ?? 'leave-out';
    const [form] = timeForms(cells.filter((cell) => cell !== ''));
    // A column that becomes the time is written in its own way.
    const isTime = (kind === 'time' || kind === 'day') && form !== undefined;
    giveRole(isTime ? { ...of, layout: { ...layout, time: form } } : of, column, { kind });
  };
  const recorded = role.kind === 'channel' ? channels.find(({ id }) => id === role.channelId) : undefined;
  const units = recorded === undefined ? [] : unitsFor(recorded);
  return (
    <>
      <select
        aria-label={`${called} is`}
        className="field mt-1 w-full font-normal"
        value={role.kind === 'channel' ? role.channelId : role.kind}
        onChange={(event) => give(event.target.value)}
      >
        {ROLES.map(([kind, label]) => (
          <option key={kind} value={kind}>
            {label}
          </option>
        ))}
        <optgroup label="Channels">
          {channels.map((channel) => (
            <option key={channel.id} value={channel.id} disabled={turnInto(unit, channel) === null}>
              {channelLabel(channel)}
            </option>
          ))}
        </optgroup>
      </select>
      {role.kind === 'channel' && units.length > 1 && (
        <select
          aria-label={`${called} is in`}
          className="field mt-1 w-full font-normal"
          value={role.unit ?? recorded?.unit ?? ''}
          onChange={(event) => giveRole(of, column, { ...role, unit: event.target.value })}
        >
          {units.map((unit) => (
            <option key={unit} value={unit}>
              {unit === PRINTED ? unit : `in ${unit}`}
            </option>
          ))}
        </select>
      )}
    </>
  );
}
