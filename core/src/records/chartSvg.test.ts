import { expect, test } from 'vitest';
import { chartSvg, type ChartPicture } from './chartSvg.ts';

const NOON = Date.UTC(2026, 4, 1, 12);
const HOUR = 3_600_000;
const picture = (change: Partial<ChartPicture> = {}): ChartPicture => ({
  title: 'Mint',
  timeZone: 'UTC',
  fromMs: NOON,
  toMs: NOON + 6 * HOUR,
  yMin: 0,
  yMax: 100,
  yUnit: '% span',
  series: [
    {
      name: 'M1',
      points: [
        { x: NOON, y: 0 },
        { x: NOON + 3 * HOUR, y: 50 },
        { x: NOON + 4 * HOUR, y: null },
        { x: NOON + 6 * HOUR, y: 100 },
      ],
    },
  ],
  lines: [{ at: 45, label: 'start 45' }],
  marks: [{ atMs: NOON + 3 * HOUR, label: '120 ml' }],
  ...change,
});

test('points stand where they are: the corners of the box and its middle, and a gap lifts the pen', () => {
  // The box reaches from 70 to 944 and from 56 to 380.
  expect(chartSvg(picture())).toContain('<path d="M70 380L507 218M944 56"');
});
test('scale and time have round marks, limits and waterings their words', () => {
  const text = chartSvg(picture());
  for (const one of [
    '>0<',
    '>20<',
    '>40<',
    '>100<',
    '>12:00<',
    '>15:00<',
    '>18:00<',
    'start 45',
    '120 ml',
    '% span',
    '>M1<',
  ])
    expect(text).toContain(one);
  // 45 of 100 are 380 - 0.45 × 324.
  expect(text).toContain('y1="234.2"');
});
test('a small scale has decimals', () =>
  expect(chartSvg(picture({ yMin: 12, yMax: 13.4 }))).toContain('>12.5<'));
test('is well-formed whatever names hold, and without a point to draw', () => {
  const odd = 'a<b>&"c"\'\u0001\ud83c\udf31';
  const text = chartSvg(picture({ title: odd, series: [{ name: odd, points: [] }], lines: [], marks: [] }));
  expect(text).toContain("a&lt;b&gt;&amp;&quot;c&quot;' \ud83c\udf31");
  expect(text).not.toContain('<path');
  // Every tag that opens is closed, and nothing stands between quotes that ends them.
  const tags = [...text.matchAll(/<(\/?)([a-zA-Z]+)(?:\s[a-zA-Z0-9-]+="[^"<]*")*\s*(\/?)>/g)];
  expect(text.replace(/<(\/?)([a-zA-Z]+)(?:\s[a-zA-Z0-9-]+="[^"<]*")*\s*(\/?)>/g, '')).not.toMatch(/[<>]/);
  const open: string[] = [];
  for (const [, closes, name = '', single] of tags) {
    if (closes) expect(open.pop()).toBe(name);
    else if (!single) open.push(name);
  }
  expect(open).toEqual([]);
});
test('what stand-ins read is grey among black, in its trace and in the legend', () => {
  const { series } = picture();
  const pale = series.map((one) => ({ ...one, name: 'from stand-ins', isPale: true }));
  const text = chartSvg(picture({ series: [...series, ...pale] }));
  expect(text.match(/stroke="#999"/g)).toHaveLength(2);
  expect(text).toContain('>from stand-ins<');
});
