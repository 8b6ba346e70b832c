import { describe, expect, test } from 'vitest';
import type { Stretch } from '../signal/streamBuffer.ts';
import { lineFault, type LinesSeen } from './lineFaults.ts';
import { streamFaults, type ProbeScale } from './streamFaults.ts';
import { likelySpeed, receivedAt, USUAL_SPEEDS } from './wrongSpeed.ts';

const scale: ProbeScale = {
  lowCounts: 20,
  highCounts: 4075,
  spanCounts: 1800,
  references: { dry: 3000, wet: 1200 },
};
const wobble = (at: number) => [0.9, -1.1, 0.4, -0.6, 1.3, -0.2, -1.4, 0.7, 0.1, -0.3, 1.1][at % 11] ?? 0;

/** Two readings a second of whole counts, with a noise of about four counts. */
const stream = (value: (at: number) => number, count = 120, noise = 4, everyMs = 500): Stretch => ({
  timesMs: Float64Array.from({ length: count }, (_, at) => at * everyMs),
  values: Float64Array.from({ length: count }, (_, at) => Math.round(value(at) + noise * wobble(at * 7))),
});
const kinds = (of: Stretch, on = scale, handled: number[] = []) =>
  streamFaults(of, on, handled).map((one) => one.kind);

describe('faults that the stream shows', () => {
  test('a calm probe has none, neither has one that settles', () => {
    expect(kinds(stream(() => 2100))).toEqual([]);
    expect(kinds(stream((at) => 1500 + 900 * Math.exp(-at / 12)))).toEqual([]);
    expect(kinds(stream(() => 2100, 3))).toEqual([]);
  });
  test('open: at the top of the scale, since the moment it left its place', () => {
    expect(
      streamFaults(
        stream((at) => (at < 90 ? 2100 : 4095), 100, 0),
        scale,
      ),
    ).toEqual([{ kind: 'open', sinceMs: 45_000 }]);
    expect(
      streamFaults(
        stream(() => 4095, 30, 0),
        scale,
      ),
    ).toEqual([{ kind: 'open', sinceMs: null }]);
  });
  test('shorted: at the bottom', () => expect(kinds(stream(() => 0, 30, 0))).toEqual(['short']));
  test('clipped: some readings are cut off, one wild one is not', () => {
    expect(
      streamFaults(
        stream((at) => (at % 10 === 0 ? 4095 : 4040)),
        scale,
      ),
    ).toContainEqual({
      kind: 'clipped',
      end: 'top',
      shareFrac: 0.1,
    });
    expect(kinds(stream((at) => (at === 80 ? 4095 : 4040)))).not.toContain('clipped');
  });
  test('stuck: the same number for twenty seconds, though it had noise before', () => {
    const frozen = stream(() => 2100);
    frozen.values.fill(2103, 60);
    expect(streamFaults(frozen, scale)).toContainEqual({ kind: 'stuck', forS: 29.5, counts: 2103 });
  });
  test('a coarse converter on a calm probe repeats itself without having stuck', () => {
    const calm = stream(() => 2100, 120, 0);
    calm.values[30] = 2101;
    expect(kinds(calm)).toEqual([]);
  });
  test('hum: one frequency stands out, with its period and height', () => {
    // A wave each 4 s, 30 counts high.
    const [fault] = streamFaults(
      stream((at) => 2100 + 30 * Math.sin((2 * Math.PI * at) / 8)),
      scale,
    );
    expect(fault).toMatchObject({ kind: 'hum' });
    if (fault?.kind !== 'hum') return;
    expect(fault.periodS).toBeCloseTo(4, 1);
    expect(fault.amplitudeCounts).toBeCloseTo(30, -1);
  });
  test('a leap that stays, unless a hand did it', () => {
    const leap = stream((at) => (at < 60 ? 2100 : 1700));
    expect(streamFaults(leap, scale)).toEqual([
      { kind: 'leap', atMs: 30_000, byCounts: expect.closeTo(-400, -1) as number },
    ]);
    expect(kinds(leap, scale, [29_000])).toEqual([]);
  });
  test('jumping to and fro is poor contact', () => {
    expect(kinds(stream((at) => (Math.floor(at / 12) % 2 === 0 ? 2100 : 1600)))).toContain('jumping');
  });
  test('wetter than water is water above the line', () => {
    const faults = streamFaults(
      stream(() => 900),
      scale,
    );
    // (1200 − 900) / 1800
    expect(faults).toEqual([{ kind: 'beyond-wet', byFrac: expect.closeTo(0.167, 2) as number }]);
    expect(
      kinds(
        stream(() => 900),
        { ...scale, references: null },
      ),
    ).toEqual([]);
    // A probe whose numbers rise as it gets wetter.
    expect(
      kinds(
        stream(() => 3300),
        { ...scale, references: { dry: 1200, wet: 3000 } },
      ),
    ).toEqual(['beyond-wet']);
  });
  test('a wave of a day is temperature', () => {
    const hours = (at: number) => at / 4;
    const record = stream(
      (at) => 2100 + 3 * hours(at) + 40 * Math.sin((2 * Math.PI * hours(at)) / 24),
      288,
      4,
      900_000,
    );
    const wave = streamFaults(record, scale).find((one) => one.kind === 'daily-wave');
    expect(wave?.amplitudeCounts).toBeCloseTo(40, -1);
    expect(kinds(stream((at) => 2100 - 3 * hours(at), 288, 4, 900_000))).not.toContain('daily-wave');
  });
});

describe('the speed that a board really sends at', () => {
  // Not the text that the sums use.
  const lines =
    'lemon=2113 mint=874\r\nlemon=2109 mint=871\r\nlemon=2110 mint=880\r\nlemon=2114 mint=869\r\n';
  test('at the right speed every byte arrives', () => {
    expect(String.fromCharCode(...receivedAt('A0=512\r\n', 9600, 9600))).toBe('A0=512\r\n');
  });
  const pairs = [
    [9600, 115_200],
    [115_200, 9600],
    [9600, 19_200],
    [57_600, 115_200],
    [115_200, 57_600],
    [38_400, 9600],
    [9600, 4800],
  ] as const;
  test.each(pairs)('sent at %d, read at %d: named', (sent, set) => {
    expect(likelySpeed(receivedAt(lines.repeat(6), sent, set), set)).toBe(sent);
  });
  test('good text and a handful of bytes tell nothing', () => {
    expect(likelySpeed(receivedAt(lines, 9600, 9600), 9600)).toBeNull();
    expect(likelySpeed([0, 255, 3], 9600)).toBeNull();
    expect(USUAL_SPEEDS).toContain(115_200);
  });
});

describe('the lines themselves', () => {
  const fine: LinesSeen = {
    recent: 10,
    garbage: 0,
    quietS: 0.5,
    everALine: true,
    bytesSinceLine: 0,
    everyS: 0.5,
    raw: null,
  };
  test('nothing is wrong while lines come', () => expect(lineFault(fine)).toBeNull());
  test('three in ten that are no text are garbage', () => {
    expect(lineFault({ ...fine, garbage: 3 })).toEqual({ kind: 'garbage', shareFrac: 0.3, likelyBaud: null });
    expect(lineFault({ ...fine, garbage: 2 })).toBeNull();
  });
  test('bytes without a line end, at the wrong speed, are garbage as well', () => {
    const bytes = receivedAt('moisture=512\r\n'.repeat(12), 9600, 57_600);
    expect(
      lineFault({
        ...fine,
        recent: 0,
        quietS: 8,
        bytesSinceLine: bytes.length,
        raw: { bytes, baudRate: 57_600 },
      }),
    ).toEqual({ kind: 'garbage', shareFrac: 1, likelyBaud: 9600 });
  });
  test('silence is told with what came before it, and a slow board is given time', () => {
    expect(lineFault({ ...fine, quietS: 8 })).toEqual({ kind: 'silence', forS: 8, before: 'lines' });
    expect(lineFault({ ...fine, quietS: 8, everALine: false, everyS: null })).toMatchObject({
      before: 'never',
    });
    expect(
      lineFault({ ...fine, quietS: 8, everALine: false, bytesSinceLine: 4, everyS: null }),
    ).toMatchObject({
      before: 'bytes',
    });
    expect(lineFault({ ...fine, quietS: 40, everyS: 10 })).toBeNull();
  });
});
