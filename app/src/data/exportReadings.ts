import { byId } from '@plain-trowel/core/quantity/byId';
import { readCurve } from '@plain-trowel/core/calibration/curve';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { tableChannels } from '@plain-trowel/core/garden/bind/tableChannels';
import { senmlRecords } from '@plain-trowel/core/tables/senmlFile';
import { curveOf } from '@plain-trowel/core/garden/bind/curveOf';
import { calibrationOf } from '@plain-trowel/core/garden/bind/decided';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';
import { readingsCsvRow, type CsvChannel } from '@plain-trowel/core/records/readingsCsv';
import { readingsOf, type Reading } from '@plain-trowel/core/records/series';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import type { Db } from './db.ts';
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
export function rowWriter(garden: Garden, channel: Channel): (readings: readonly Reading[]) => string {
  const calibration = calibrationOf(garden, channel);
  const curve = calibration && curveOf(calibration);
  const of = {
    ...placeOf(garden, channel),
    channelId: channel.id,
    percentKind: curve?.percentKind ?? 'span',
  };
  return (readings) =>
    readings
      .map(({ timeMs, raw, flags }) =>
        readingsCsvRow({ ...of, timeMs, raw, flags, percent: curve ? readCurve(curve, raw).percent : null }),
      )
      .join('');
}

/** So much text is handed to the browser at a time, letters: a long season is never in memory as a whole. */
const PIECE = 1_000_000;

/** The readings of the whole garden as a CSV, in pieces; null where there is none. */
export async function readingsFile(db: Db, garden: Garden, header: string): Promise<Blob | null> {
  const pieces: Blob[] = [];
  let text = header;
  let isEmpty = true;
  const reader = new SeriesReader(dayStore(() => Promise.resolve(db), garden.id));
  for (const channel of garden.channels) {
    const rows = rowWriter(garden, channel);
    const whole = { channelId: channel.id, fromMs: -Infinity, toMs: Infinity, withBeside: true };
    for await (const chunk of reader.chunks(whole)) {
      isEmpty = false;
      text += rows(readingsOf(chunk));
      if (text.length < PIECE) continue;
      pieces.push(new Blob([text]));
      text = '';
    }
  }
  return isEmpty ? null : new Blob([...pieces, text], { type: 'text/csv' });
}

/** The readings of real probes of the whole garden as SenML, in pieces; null where there is none. */
export async function senmlFile(db: Db, garden: Garden): Promise<Blob | null> {
  const pieces: Blob[] = [];
  let text = '[';
  let isFirst = true;
  const reader = new SeriesReader(dayStore(() => Promise.resolve(db), garden.id));
  for (const channel of tableChannels(garden)) {
    const whole = { channelId: channel.id, fromMs: -Infinity, toMs: Infinity };
    for await (const chunk of reader.chunks(whole)) {
      const records = senmlRecords(channel, readingsOf(chunk), isFirst);
      if (records !== '') isFirst = false;
      text += records;
      if (text.length < PIECE) continue;
      pieces.push(new Blob([text]));
      text = '';
    }
  }
  return isFirst ? null : new Blob([...pieces, text, '\n]\n'], { type: 'application/senml+json' });
}
