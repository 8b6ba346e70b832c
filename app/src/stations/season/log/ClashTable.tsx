import { byId } from '@plain-trowel/core/quantity/byId';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Clash } from '@plain-trowel/core/records/mergeDay';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

/** The first readings of a file that say something else than the record. */
export function ClashTable({
  title,
  columns,
  clashes,
  total,
  garden,
}: {
  title: string;
  columns: readonly [string, string];
  clashes: readonly Clash[];
  total: number;
  garden: Garden;
}) {
  const nameOf = (channelId: string) => {
    const channel = byId(garden.channels, channelId);
    return channel ? channelName(garden, channel) : channelId;
  };
  return (
    <section className="mt-2">
      <h3 className="font-semibold">{title}</h3>
      <table className="mt-1 w-full">
        <thead>
          <tr>
            <th>When</th>
            <th>Channel</th>
            {columns.map((column) => (
              <th key={column} className="text-right">
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {clashes.map((clash, at) => (
            <tr key={`${clash.channelId} ${clash.timeMs} ${at}`}>
              <td className="num">{dayTime(clash.timeMs, garden.timeZone, 's')}</td>
              <td>{nameOf(clash.channelId)}</td>
              <td className="num text-right">{formatNumber(clash.recorded, decimalsOf(clash.recorded))}</td>
              <td className="num text-right">{formatNumber(clash.given, decimalsOf(clash.given))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {total > clashes.length && (
        <p className="text-[13.5px] text-soft">and {formatNumber(total - clashes.length)} more</p>
      )}
    </section>
  );
}

const decimalsOf = (value: number): number => (Number.isInteger(value) ? 0 : 3);
