/** A chart of the log as a picture file: SVG that any program opens, with its scale, limits, waterings and names, and nothing of the page around it. */
import { formatNumber } from '../quantity/format.ts';
import { timeTicks, tickText } from './timeTicks.ts';
import type { TracePoint } from './trace.ts';

export type ChartPicture = {
  readonly title: string;
  readonly timeZone: string;
  readonly fromMs: number;
  readonly toMs: number;
  readonly yMin: number;
  readonly yMax: number;
  readonly yUnit: string;
  readonly series: readonly {
    readonly name: string;
    readonly points: readonly TracePoint[];
    /** Of lesser worth, as readings of stand-ins among real ones. */
    readonly isPale?: boolean;
  }[];
  readonly lines: readonly { readonly at: number; readonly label: string }[];
  readonly marks: readonly { readonly atMs: number; readonly label: string }[];
};

const WIDTH = 960;
const HEIGHT = 420;
const BOX = { left: 70, right: 16, top: 56, bottom: 40 } as const;
const TICKS = 7;
const DASHES = ['', '7 4', '2 3', '10 3 2 3'] as const;
const FONT = 'font-family="sans-serif"';

// oxlint-disable-next-line no-control-regex
const escaped = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, ' ')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');

const rounded = (value: number): string => String(Math.round(value * 10) / 10);

/** About five round steps over a scale: 1, 2 or 5 times a power of ten. */
function scaleStep(span: number): number {
  const rough = span / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const share = rough / power;
  return power * (share <= 1 ? 1 : share <= 2 ? 2 : share <= 5 ? 5 : 10);
}

/** The file's text; well-formed whatever the names hold. */
export function chartSvg(picture: ChartPicture): string {
  const { fromMs, toMs, yMin, yMax } = picture;
  const [right, bottom] = [WIDTH - BOX.right, HEIGHT - BOX.bottom];
  const x = (ms: number) => BOX.left + ((ms - fromMs) / Math.max(1, toMs - fromMs)) * (right - BOX.left);
  const y = (value: number) => bottom - ((value - yMin) / Math.max(1e-9, yMax - yMin)) * (bottom - BOX.top);
  const rows: string[] = [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" role="img">`,
    `<title>${escaped(picture.title)}</title>`,
    `<rect width="${WIDTH}" height="${HEIGHT}" fill="#fff"/>`,
    `<text x="${BOX.left}" y="24" ${FONT} font-size="17" font-weight="bold">${escaped(picture.title)}</text>`,
    `<clipPath id="box"><rect x="${BOX.left}" y="${BOX.top}" width="${right - BOX.left}" height="${bottom - BOX.top}"/></clipPath>`,
  ];
  const step = scaleStep(yMax - yMin);
  const decimals = step < 1 ? Math.min(3, Math.ceil(-Math.log10(step))) : 0;
  for (let value = Math.ceil(yMin / step) * step; value <= yMax + 1e-9; value += step)
    rows.push(
      `<line x1="${BOX.left}" x2="${right}" y1="${rounded(y(value))}" y2="${rounded(y(value))}" stroke="#ccc"/>`,
      `<text x="${BOX.left - 8}" y="${rounded(y(value) + 4)}" ${FONT} font-size="12" text-anchor="end">${formatNumber(value, decimals)}</text>`,
    );
  rows.push(
    `<text x="${BOX.left - 8}" y="${BOX.top - 10}" ${FONT} font-size="12" text-anchor="end">${escaped(picture.yUnit)}</text>`,
  );
  const { ticksMs, stepMs } = timeTicks(fromMs, toMs, TICKS, picture.timeZone);
  for (const ms of ticksMs)
    rows.push(
      `<line x1="${rounded(x(ms))}" x2="${rounded(x(ms))}" y1="${bottom}" y2="${bottom + 6}" stroke="#000"/>`,
      `<text x="${rounded(x(ms))}" y="${bottom + 22}" ${FONT} font-size="12" text-anchor="middle">${escaped(tickText(ms, stepMs, picture.timeZone))}</text>`,
    );
  for (const { at, label } of picture.lines)
    rows.push(
      `<line x1="${BOX.left}" x2="${right}" y1="${rounded(y(at))}" y2="${rounded(y(at))}" stroke="#345" stroke-width="1.5"/>`,
      `<text x="${right - 4}" y="${rounded(y(at) - 4)}" ${FONT} font-size="12" fill="#345" text-anchor="end">${escaped(label)}</text>`,
    );
  for (const { atMs, label } of picture.marks)
    rows.push(
      `<line x1="${rounded(x(atMs))}" x2="${rounded(x(atMs))}" y1="${BOX.top}" y2="${bottom}" stroke="#268" stroke-dasharray="3 3"/>`,
      `<text x="${rounded(x(atMs) + 3)}" y="${bottom - 6}" ${FONT} font-size="12" fill="#268">${escaped(label)}</text>`,
    );
  for (const [place, { name, points, isPale }] of picture.series.entries()) {
    const dash = isPale ? '' : (DASHES[place % DASHES.length] ?? '');
    const ink = isPale ? '#999' : '#000';
    const path = pathOf(points, x, y);
    if (path !== '')
      rows.push(
        `<path d="${path}" fill="none" stroke="${ink}" stroke-width="1.6" clip-path="url(#box)"${dash === '' ? '' : ` stroke-dasharray="${dash}"`}/>`,
      );
    // The legend: a piece of each line with its name.
    const left = BOX.left + place * 180;
    rows.push(
      `<line x1="${left}" x2="${left + 28}" y1="40" y2="40" stroke="${ink}" stroke-width="1.6"${dash === '' ? '' : ` stroke-dasharray="${dash}"`}/>`,
      `<text x="${left + 34}" y="44" ${FONT} font-size="12">${escaped(name)}</text>`,
    );
  }
  rows.push(
    `<rect x="${BOX.left}" y="${BOX.top}" width="${right - BOX.left}" height="${bottom - BOX.top}" fill="none" stroke="#000"/>`,
    '</svg>',
    '',
  );
  return rows.join('\n');
}

/** A gap lifts the pen. */
function pathOf(
  points: readonly TracePoint[],
  x: (ms: number) => number,
  y: (value: number) => number,
): string {
  let isDown = false;
  return points
    .flatMap((point) => {
      if (point.y === null) {
        isDown = false;
        return [];
      }
      const letter = isDown ? 'L' : 'M';
      isDown = true;
      return [`${letter}${rounded(x(point.x))} ${rounded(y(point.y))}`];
    })
    .join('');
}
