import { byId } from '@plain-trowel/core/quantity/byId';
import { readCurve } from '@plain-trowel/core/calibration/curve';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { tableChannels } from '@plain-trowel/core/garden/bind/tableChannels';
import { senmlRecords } from '@plain-trowel/core/tables/senmlFile';
import { curveOf } from '@plain-trowel/core/garden/bind/curveOf';
import { calibrationOf } from '@plain-trowel/core/garden/bind/decided';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';
import type { CsvChannel } from '@plain-trowel/core/records/readingsCsv';
import { readingsCsvWriter } from '@plain-trowel/core/records/readingsCsvOut';
import { dayOf, readingsOf, type Series } from '@plain-trowel/core/records/series';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import { ofGarden, type Db } from './db.ts';
import { dayStore } from './recordStore.ts';

const placeOf = (garden: Garden, channel: Channel) => {
  const probe = byId(garden.probes, channel.probeId);
  return {
    plot: byId(garden.plots, probe?.plotId)?.name ?? '',
    probe: channelName(garden, channel),
  };
};

/** The garden's channels as a readings CSV names them. */
export const csvChannels = (garden: Garden): CsvChannel[] =>
  garden.channels.map((channel) => ({ id: channel.id, ...placeOf(garden, channel) }));

/** Writes readings of a channel as rows of a readings CSV; moisture with the percent that the present calibration makes of it. */
export function rowWriter(garden: Garden, channel: Channel): (series: Series) => string {
  const calibration = calibrationOf(garden, channel);
  const curve = calibration && curveOf(calibration);
  return readingsCsvWriter(
    { ...placeOf(garden, channel), channelId: channel.id, percentKind: curve?.percentKind ?? 'span' },
    curve ? (raw) => readCurve(curve, raw).percent : null,
  );
}

/** So much text is handed to the browser at a time, letters: a long season is never in memory as a whole. */
const PIECE = 1_000_000;

type Progress = (doneFrac: number) => void;
type Whole = { readonly channelId: string; readonly withBeside: boolean };

/** Gathers a file's text in pieces. */
class Pieces {
  private readonly done: Blob[] = [];
  private text = '';

  add(text: string): void {
    this.text += text;
    if (this.text.length < PIECE) return;
    this.done.push(new Blob([this.text]));
    this.text = '';
  }

  file(type: string): Blob {
    return new Blob([...this.done, this.text], { type });
  }
}

/** Reads channels from their beginning to their end, a month at a time, and says how far it is. */
function monthsReader(db: Db, gardenId: string, onProgress?: Progress) {
  const reader = new SeriesReader(dayStore(() => Promise.resolve(db), gardenId));
  let [done, all] = [0, 0];
  return async function* ({ channelId, withBeside }: Whole): AsyncGenerator<Series> {
    if (all === 0) all = await db.count('blocks', ofGarden(gardenId));
    for await (const month of reader.chunks({ channelId, fromMs: -Infinity, toMs: Infinity, withBeside })) {
      yield month;
      done += daysIn(month);
      onProgress?.(Math.min(1, done / Math.max(1, all)));
    }
  };
}

function daysIn({ timesMs }: Series): number {
  let [days, lastMs] = [0, Number.NaN];
  for (const ms of timesMs)
    if (dayOf(ms) !== lastMs) {
      days += 1;
      lastMs = dayOf(ms);
    }
  return days;
}

/** The readings of the whole garden as a CSV, in pieces; null where there is none. */
export async function readingsFile(
  db: Db,
  garden: Garden,
  header: string,
  onProgress?: Progress,
): Promise<Blob | null> {
  const pieces = new Pieces();
  pieces.add(header);
  let isEmpty = true;
  const monthsOf = monthsReader(db, garden.id, onProgress);
  for (const channel of garden.channels) {
    const rows = rowWriter(garden, channel);
    for await (const month of monthsOf({ channelId: channel.id, withBeside: true })) {
      isEmpty = false;
      pieces.add(rows(month));
    }
  }
  return isEmpty ? null : pieces.file('text/csv');
}

/** The readings of real probes of the whole garden as SenML, in pieces; null where there is none. */
export async function senmlFile(db: Db, garden: Garden, onProgress?: Progress): Promise<Blob | null> {
  const pieces = new Pieces();
  pieces.add('[');
  let isFirst = true;
  const monthsOf = monthsReader(db, garden.id, onProgress);
  for (const channel of tableChannels(garden))
    for await (const month of monthsOf({ channelId: channel.id, withBeside: false })) {
      const records = senmlRecords(channel, readingsOf(month), isFirst);
      if (records !== '') isFirst = false;
      pieces.add(records);
    }
  pieces.add('\n]\n');
  return isFirst ? null : pieces.file('application/senml+json');
}
