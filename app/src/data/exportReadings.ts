import { readCurve } from '@plain-trowel/core/calibration/curve';
import { channelName } from '@plain-trowel/core/garden/channels';
import { curveOf } from '@plain-trowel/core/garden/curveOf';
import { calibrationOf } from '@plain-trowel/core/garden/edit';
import type { Channel, Garden } from '@plain-trowel/core/garden/schema';
import type { CsvChannel, CsvRow } from '@plain-trowel/core/records/readingsCsv';
import type { Db } from './db.ts';
import { readWholeSeries } from './recordStore.ts';

const placeOf = (garden: Garden, channel: Channel) => {
  const probe = garden.probes.find((one) => one.id === channel.probeId);
  return {
    plot: garden.plots.find((one) => one.id === probe?.plotId)?.name ?? '',
    probe: channelName(garden, channel),
  };
};

/** The garden's channels as a readings CSV names them. */
export const csvChannels = (garden: Garden): CsvChannel[] =>
  garden.channels.map((channel) => ({ id: channel.id, ...placeOf(garden, channel) }));

/** Every reading of the garden as rows of a CSV, channel by channel; moisture with the percent that the present calibration makes of it. */
export async function csvRows(db: Db, garden: Garden): Promise<CsvRow[]> {
  const rows: CsvRow[] = [];
  for (const channel of garden.channels) {
    const calibration = calibrationOf(garden, channel);
    const curve = calibration && curveOf(calibration);
    const series = await readWholeSeries(db, garden.id, channel.id);
    series.raw.forEach((raw, at) =>
      rows.push({
        timeMs: series.timesMs[at] ?? 0,
        ...placeOf(garden, channel),
        channelId: channel.id,
        raw,
        percent: curve ? readCurve(curve, raw).percent : null,
        percentKind: curve?.percentKind ?? 'span',
        flags: series.flags[at] ?? 0,
      }),
    );
  }
  return rows;
}
