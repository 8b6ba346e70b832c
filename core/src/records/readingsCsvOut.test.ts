import fc from 'fast-check';
import { expect, test } from 'vitest';
import { EARLIEST_MS, LATEST_MS } from '../quantity/moment.ts';
import { writeReadingsCsv } from './readingsCsvForTests.ts';
import { READINGS_HEADER, readingsCsvWriter } from './readingsCsvOut.ts';
import { seriesOfReadings } from './series.ts';

const names = { plot: 'Minze, "Kübel"', probe: '=M1', channelId: 'channel-m1', percentKind: 'span' };

const inText = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

test('one row by hand', () => {
  const rows = readingsCsvWriter(names, (raw) => raw / 40);
  expect(inText(rows(seriesOfReadings([{ timeMs: 1_772_346_605_007, raw: 1512, flags: 3 }])))).toBe(
    '2026-03-01T06:30:05.007Z,"Minze, ""Kübel""",\'=M1,channel-m1,1512,37.8,span,simulated imported\r\n',
  );
});

test('whatever the readings, it writes what the plain way writes', () => {
  const reading = fc.record({
    timeMs: fc.oneof(
      fc.integer({ min: EARLIEST_MS, max: LATEST_MS - 1 }),
      // Around midnights, and where no garden is.
      fc.integer({ min: -2, max: 2 }).map((at) => 1_772_323_200_000 + at),
      fc.constantFrom(0, EARLIEST_MS - 1, LATEST_MS),
    ),
    raw: fc.oneof(fc.integer({ min: -5, max: 4095 }), fc.double({ min: -1e9, max: 1e9, noNaN: true })),
    flags: fc.integer({ min: 0, max: 7 }),
  });
  fc.assert(
    fc.property(fc.array(reading, { maxLength: 60 }), fc.boolean(), (readings, isCalibrated) => {
      const percentOf = isCalibrated ? (raw: number) => (2800 - raw) / 16 : null;
      const plain = readings.map((one) => ({ ...names, ...one, percent: percentOf?.(one.raw) ?? null }));
      const rows = readingsCsvWriter(names, percentOf);
      // In two stretches: what was written of the first must not come again.
      const half = readings.length >> 1;
      const written = [readings.slice(0, half), readings.slice(half)].map((part) =>
        inText(rows(seriesOfReadings(part))),
      );
      expect(READINGS_HEADER + written.join('')).toBe(writeReadingsCsv(plain));
    }),
  );
});
