import { byId } from '@plain-trowel/core/quantity/byId';
import { readCurve } from '@plain-trowel/core/calibration/curve';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { tableChannels } from '@plain-trowel/core/garden/bind/tableChannels';
import { senmlWriter } from '@plain-trowel/core/tables/senmlFile';
import { curveOf } from '@plain-trowel/core/garden/bind/curveOf';
import { calibrationOf } from '@plain-trowel/core/garden/bind/decided';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';
import type { CsvChannel } from '@plain-trowel/core/records/readingsCsv';
import { readingsCsvWriter } from '@plain-trowel/core/records/readingsCsvOut';
import type { Series } from '@plain-trowel/core/records/series';
import type { Db } from './db.ts';
import { WholeRecord, type PageState } from './wholeRecord.ts';

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
export function rowWriter(garden: Garden, channel: Channel): (series: Series) => Uint8Array<ArrayBuffer> {
  const calibration = calibrationOf(garden, channel);
  const curve = calibration && curveOf(calibration);
  return readingsCsvWriter(
    { ...placeOf(garden, channel), channelId: channel.id, percentKind: curve?.percentKind ?? 'span' },
    curve ? (raw) => readCurve(curve, raw).percent : null,
  );
}

/** So much of a file is handed to the browser at a time, bytes: a long season is never in memory as a whole. */
const PIECE = 1_000_000;

type Progress = (doneFrac: number) => void;

/** Gathers a file in pieces. */
class Pieces {
  private readonly done: Blob[] = [];
  private waiting: BlobPart[] = [];
  private size = 0;

  add(piece: string | Uint8Array<ArrayBuffer>): void {
    this.waiting.push(piece);
    this.size += piece.length;
    if (this.size < PIECE) return;
    this.done.push(new Blob(this.waiting));
    [this.waiting, this.size] = [[], 0];
  }

  file(type: string): Blob {
    return new Blob([...this.done, ...this.waiting], { type });
  }
}

/** A file of readings: null where there are none; and of so many days something could not be read, and is not in it. */
export type ReadingsFile = { readonly file: Blob | null; readonly damagedDays: number };

/** The readings of the whole garden as a CSV, in pieces. */
export async function readingsFile(
  db: Db,
  page: PageState,
  header: string,
  onProgress?: Progress,
): Promise<ReadingsFile> {
  const pieces = new Pieces();
  pieces.add(header);
  let isEmpty = true;
  const record = new WholeRecord(db, page, onProgress);
  for (const channel of page.garden.channels) {
    const rows = rowWriter(page.garden, channel);
    for await (const stretch of record.stretches(channel.id, true)) {
      if (stretch.raw.length > 0) isEmpty = false;
      pieces.add(rows(stretch));
    }
  }
  return { file: isEmpty ? null : pieces.file('text/csv'), damagedDays: record.damagedDays };
}

/** The readings of real probes of the whole garden as SenML, in pieces. */
export async function senmlFile(db: Db, page: PageState, onProgress?: Progress): Promise<ReadingsFile> {
  const pieces = new Pieces();
  pieces.add('[');
  let isFirst = true;
  const record = new WholeRecord(db, page, onProgress);
  for (const channel of tableChannels(page.garden)) {
    const records = senmlWriter(channel);
    for await (const stretch of record.stretches(channel.id, false)) {
      const written = records(stretch);
      // The very first has no comma in front.
      pieces.add(isFirst ? written.slice(1) : written);
      if (written.length > 0) isFirst = false;
    }
  }
  pieces.add('\n]\n');
  return {
    file: isFirst ? null : pieces.file('application/senml+json'),
    damagedDays: record.damagedDays,
  };
}
