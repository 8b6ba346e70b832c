import { spanReading } from '@plain-trowel/core/calibration/twoPoint';
import { plotParts } from '@plain-trowel/core/garden/edit';
import type { Garden } from '@plain-trowel/core/garden/schema';
import type { CsvChannel, CsvRow } from '@plain-trowel/core/records/readingsCsv';
import type { Db } from './db.ts';
import { readWholeSeries } from './recordStore.ts';

/** The garden's channels as a readings CSV names them. */
export function csvChannels(garden: Garden): CsvChannel[] {
  return garden.plots.flatMap((plot) => {
    const parts = plotParts(garden, plot.id);
    return parts?.channel && parts.probe
      ? [{ id: parts.channel.id, plot: plot.name, probe: parts.probe.label }]
      : [];
  });
}

/** Every reading of the garden as rows of a CSV, channel by channel, each with the percent that the present calibration makes of it. */
export async function csvRows(db: Db, garden: Garden): Promise<CsvRow[]> {
  const rows: CsvRow[] = [];
  for (const plot of garden.plots) {
    const parts = plotParts(garden, plot.id);
    if (!parts?.channel || !parts.probe) continue;
    const { channel, probe, fit } = parts;
    const series = await readWholeSeries(db, garden.id, channel.id);
    series.raw.forEach((raw, at) =>
      rows.push({
        timeMs: series.timesMs[at] ?? 0,
        plot: plot.name,
        probe: probe.label,
        channelId: channel.id,
        raw,
        percent: fit ? spanReading(fit, raw).percent : null,
        percentKind: 'span',
        flags: series.flags[at] ?? 0,
      }),
    );
  }
  return rows;
}
