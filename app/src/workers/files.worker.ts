/** Long reading and computing, away from the page. */
import { expose } from 'comlink';
import {
  readReadingsCsv,
  writeReadingsCsv,
  type CsvChannel,
  type CsvRow,
} from '@plain-trowel/core/records/readingsCsv';
import { readBenchRecording } from '@plain-trowel/core/signal/benchRecording';
import { readSerialLog } from '@plain-trowel/core/signal/serialLog';
import { marigoldHare, sampleHistory } from '@plain-trowel/standins/sample/marigoldHare';

const jobs = {
  readCsv: async (file: Blob, channels: readonly CsvChannel[], onProgress: (done: number) => void) =>
    readReadingsCsv(await file.text(), channels, onProgress),

  writeCsv: (rows: readonly CsvRow[]) => writeReadingsCsv(rows),

  readLog: async (
    file: Blob,
    options: { startMs: number; intervalMs: number },
    onProgress: (done: number) => void,
  ) => readSerialLog(await file.text(), { ...options, onProgress }),

  readBench: async (file: Blob) => readBenchRecording(await file.text()),

  makeSample: (nowMs: number) => {
    const garden = marigoldHare(nowMs);
    return { garden, ...sampleHistory(garden, nowMs) };
  },
};

export type FileJobs = typeof jobs;

expose(jobs);
