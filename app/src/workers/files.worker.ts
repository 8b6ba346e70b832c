/** Long reading, writing and computing, away from the page. */
import { expose, transfer } from 'comlink';
import { waveFault } from '@plain-trowel/core/faults/streamFaults';
import type { Window } from '@plain-trowel/core/live/channelWatch';
import { readingsOfLog, type BoardLine } from '@plain-trowel/core/garden/bind/logReadings';
import { catalogueOf } from '@plain-trowel/core/garden/edits/plan';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { lossesOf } from '@plain-trowel/core/wiring/losses';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { isReadingsCsv, readReadingsCsv, type CsvChannel } from '@plain-trowel/core/records/readingsCsv';
import { READINGS_HEADER } from '@plain-trowel/core/records/readingsCsvOut';
import { isPhoto, shrunk } from '@plain-trowel/core/records/photo';
import type { Stretch } from '@plain-trowel/core/records/stretch';
import { readBenchRecording } from '@plain-trowel/core/signal/benchRecording';
import type { DayBlock } from '@plain-trowel/core/records/series';
import { looksBinary, readSerialLog } from '@plain-trowel/core/signal/serialLog';
import { guessTable, type GuessContext } from '@plain-trowel/core/tables/guess';
import type { Layout } from '@plain-trowel/core/tables/layout';
import { asTable, type FileForm } from '@plain-trowel/core/tables/otherForms';
import { readTable, type RecordedAs, type TableRead } from '@plain-trowel/core/tables/readTable';
import { marigoldHare, sampleHistory } from '@plain-trowel/standins/sample/marigoldHare';
import { readingsFile, senmlFile } from '../data/exportReadings.ts';
import { readBackup } from '../data/readBackup.ts';
import { readSeason, type SeasonChannel } from '../data/readSeason.ts';
import { storageUse, tidyDays } from '../data/days.ts';
import { database } from '../data/services.ts';
import { thinningOf, thinOut } from '../data/thinOut.ts';
import type { PageState } from '../data/wholeRecord.ts';
import { writeBackup } from '../data/writeBackup.ts';
import type { Packing } from '../data/packing.ts';
import { decodeText } from './decodeText.ts';
import { packingBeside } from './packing.ts';

type Progress = (doneFrac: number) => void;

/** So much of a table is shown while it is asked how to read it. */
const FRONT_LETTERS = 64_000;

const bytesOf = async (file: Blob) => new Uint8Array(await file.arrayBuffer());
const textOf = async (file: Blob) => decodeText(await bytesOf(file));

/** What need not be copied on its way to the page. */
const columnsOf = (days: readonly DayBlock[]) =>
  days.flatMap(({ offsetsMs, raw, flags }) => [offsetsMs.buffer, raw.buffer, flags.buffer]);

/** A file as the table that it is, or as one that says the same. */
function guessForm(text: string, context: GuessContext) {
  const senml = asTable(text, 'senml');
  if (senml !== null) return { form: 'senml' as const, table: senml, guess: guessTable(senml, context) };
  const guess = guessTable(text, context);
  const log = guess.ok ? null : asTable(text, 'serial-log');
  return log === null
    ? { form: 'table' as const, table: text, guess }
    : { form: 'serial-log' as const, table: log, guess: guessTable(log, context) };
}

/** The worker that packs stays as long as this one. */
let packing: Promise<Packing> | null = null;
const besides = (): Promise<Packing> => (packing ??= packingBeside());

const jobs = {
  /** A readings CSV at once; of any other table how it is most likely to be read, and its beginning. */
  openTable: async (
    file: Blob,
    channels: readonly CsvChannel[],
    context: GuessContext,
    onProgress: Progress,
  ) => {
    const { text, encoding } = await textOf(file);
    if (text.trim() === '' || looksBinary(text) || isReadingsCsv(text)) {
      const read = readReadingsCsv(text, channels, onProgress);
      return transfer({ encoding, kind: 'readings' as const, read }, read.ok ? columnsOf(read.value) : []);
    }
    const { form, table, guess } = guessForm(text, context);
    const front = table.slice(0, FRONT_LETTERS);
    return {
      encoding,
      kind: 'table' as const,
      form,
      guess,
      // Not cut within a line.
      front: front.length < table.length ? front.slice(0, front.lastIndexOf('\n') + 1) : front,
    };
  },

  readTable: async (
    file: Blob,
    form: FileForm,
    layout: Layout,
    channels: readonly RecordedAs[],
    onProgress: Progress,
  ): Promise<TableRead> => {
    const { text } = await textOf(file);
    const read = readTable(asTable(text, form) ?? '', layout, channels, { onProgress });
    return transfer(read, columnsOf(read.days));
  },

  /** Every reading of the garden as CSV. */
  writeCsv: async (page: PageState, onProgress: Progress) =>
    readingsFile(await database(), page, READINGS_HEADER, onProgress),

  writeSenml: async (page: PageState, onProgress: Progress) => senmlFile(await database(), page, onProgress),

  readLog: async (file: Blob, options: { startMs: number; intervalMs: number }, onProgress: Progress) =>
    readSerialLog((await textOf(file)).text, { ...options, onProgress }),

  /** What a log says of the garden's channels. */
  logReadings: (garden: Garden, lines: readonly BoardLine[], flags: number) =>
    readingsOfLog(garden, lines, flags),

  readBench: async (file: Blob) => readBenchRecording((await textOf(file)).text),

  readBackup: async (file: Blob, onProgress: Progress) => {
    const read = readBackup(await bytesOf(file), onProgress);
    return transfer(read, read.ok ? columnsOf(read.value.readings) : []);
  },

  writeBackup: async (page: PageState, withStorage: boolean, nowMs: number, onProgress: Progress) =>
    writeBackup(withStorage ? await database() : null, page, nowMs, onProgress, await besides()),

  /** Looks for a daily wave in days of readings. */
  findWave: (record: Window) => waveFault(record),

  /** What happens when any one wire of the garden comes off. */
  wireLosses: (garden: Garden, onProgress: Progress) =>
    lossesOf(readCircuit(garden.wiring, catalogueOf(garden)), onProgress),

  /** Packs and thins the days that are over and were not yet. */
  tidyDays: async (gardenId: string, onProgress: (done: number, all: number) => void) =>
    tidyDays(await database(), gardenId, onProgress),

  readSeason: async (gardenId: string, channels: readonly SeasonChannel[], span: Stretch, timeZone: string) =>
    readSeason(await database(), gardenId, channels, span, timeZone),

  storageUse: async (gardenId: string) => storageUse(await database(), gardenId),

  thinningOf: async (gardenId: string, toMs: number) => thinningOf(await database(), gardenId, toMs),

  thinOut: async (
    gardenId: string,
    of: Parameters<typeof thinOut>[2],
    onProgress: (done: number, all: number) => void,
  ) => thinOut(await database(), gardenId, of, onProgress),

  /** A picture as a small JPEG, without where and with what it was taken; null for what the browser cannot read as one. */
  shrinkPhoto: async (file: Blob): Promise<Uint8Array<ArrayBuffer> | null> => {
    const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null);
    if (!picture) return null;
    const { width, height } = shrunk(picture.width, picture.height);
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')?.drawImage(picture, 0, 0, width, height);
    const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.82 });
    const bytes = new Uint8Array(await blob.arrayBuffer());
    return isPhoto(bytes) ? bytes : null;
  },

  makeSample: (nowMs: number) => {
    const garden = marigoldHare(nowMs);
    return { garden, ...sampleHistory(garden, nowMs) };
  },
};

export type FileJobs = typeof jobs;

expose(jobs);
