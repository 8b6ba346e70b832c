import { formatNumber } from '@plain-trowel/core/quantity/format';
import { columnOf } from '@plain-trowel/core/tables/columnNames';
import { turnInto } from '@plain-trowel/core/tables/units';
import { roleColumns } from '@plain-trowel/core/tables/layout';
import { channelLabel, giveName, type Editing } from './editing.ts';

/** Where each row names its probe: what each of the names means. */
export function NameRoles({
  of,
  others,
}: {
  of: Editing;
  /** Names that are taken in nowhere, with how many rows have them. */
  others: ReadonlyMap<string, number>;
}) {
  const { layout, channels } = of;
  const [column = 0] = roleColumns(layout, 'value');
  const names = [
    ...Object.keys(layout.names),
    ...[...others.keys()].filter((name) => !(name in layout.names)),
  ];
  return (
    <ul aria-label="Names in the rows" className="mt-3 grid gap-x-6 gap-y-2 sm:grid-cols-2">
      {names.map((name) => (
        <li key={name}>
          <label className="grid grid-cols-[1fr_1.4fr] items-center gap-2 text-[14px]">
            <span className="wrap-anywhere">
              {name || 'no name'}
              {others.has(name) && (
                <span className="text-soft"> ({formatNumber(others.get(name) ?? 0)} rows)</span>
              )}
            </span>
            <select
              className="field"
              value={layout.names[name]?.channelId ?? ''}
              onChange={({ target: { value } }) =>
                giveName(
                  of,
                  column,
                  name,
                  value === '' ? null : { channelId: value, unit: columnOf(name, []).unit },
                )
              }
            >
              <option value="">leave out</option>
              {channels.map((channel) => (
                <option
                  key={channel.id}
                  value={channel.id}
                  disabled={turnInto(columnOf(name, []).unit, channel) === null}
                >
                  {channelLabel(channel)}
                </option>
              ))}
            </select>
          </label>
        </li>
      ))}
    </ul>
  );
}
