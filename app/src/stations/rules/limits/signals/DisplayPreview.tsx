import {
  DISPLAY_LETTERS,
  DISPLAY_LINES,
  DISPLAY_PLACES,
  displayPages,
  PAGE_S,
  unknownPlaces,
  type DisplayPage,
} from '@plain-trowel/core/control/display';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useDisplayValues } from './useDisplayValues.ts';

const CELL = { width: 9, height: 17 };
const MARGIN = 8;

/** What a two-line display and a small graphic one show of the plot right now, page by page. */
export function DisplayPreview({ parts, text }: { parts: PlotParts; text: string }) {
  const values = useDisplayValues(parts);
  const pages = displayPages(text, values);
  const strangers = unknownPlaces(text);
  const lost = pages.reduce((sum, page) => sum + page.lost, 0);
  return (
    <section aria-label="Display" className="mt-2">
      <div className="flex flex-wrap items-start gap-3">
        {pages.map((page, at) => (
          <TwoLines key={at} page={page} />
        ))}
        <Graphic name={parts.plot.name} page={pages[0]} percent={values.percent} />
      </div>
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
        Two lines of {DISPLAY_LETTERS} letters{pages.length > 1 ? `, a page for ${PAGE_S} s each` : ''}; at
        the right a small graphic display. In braces stand:{' '}
        {DISPLAY_PLACES.map((place) => `{${place}}`).join(' ')}.{lost > 0 && ` ${lost} letters find no room.`}
        {strangers.length > 0 && ` Nothing is called ${strangers.map((one) => `{${one}}`).join(', ')}.`}
      </p>
    </section>
  );
}

function TwoLines({ page }: { page: DisplayPage }) {
  const width = DISPLAY_LETTERS * CELL.width + 2 * MARGIN;
  const height = DISPLAY_LINES * CELL.height + 2 * MARGIN;
  return (
    <svg width={width} height={height} role="img" aria-label={`Display: ${page.lines.join(' / ')}`}>
      <rect
        x="0.75"
        y="0.75"
        width={width - 1.5}
        height={height - 1.5}
        strokeWidth="1.5"
        className="fill-paper-2 stroke-ink"
      />
      {page.lines.map((line, at) => (
        <text
          key={at}
          x={MARGIN}
          y={MARGIN + at * CELL.height + 13}
          textLength={line.length * CELL.width}
          xmlSpace="preserve"
          className="fill-ink font-mono text-[15px]"
        >
          {line}
        </text>
      ))}
    </svg>
  );
}

/** 128 by 64 dots: the plot, its number large, and the first page below. */
function Graphic({
  name,
  page,
  percent,
}: {
  name: string;
  page: DisplayPage | undefined;
  percent: string | null;
}) {
  return (
    <svg
      width="152"
      height="76"
      viewBox="-6 -3 140 70"
      role="img"
      aria-label={`Graphic display: ${name}, ${percent ?? 'not known'}`}
    >
      <rect
        x="-5.25"
        y="-2.25"
        width="138.5"
        height="68.5"
        strokeWidth="1.5"
        className="fill-paper-2 stroke-ink"
      />
      <text x="0" y="10" className="fill-ink font-mono text-[10px]">
        {name.slice(0, 21)}
      </text>
      <text x="0" y="38" className="fill-ink font-mono text-[18px] font-semibold">
        {percent ?? '?'}
      </text>
      <text x="0" y="58" className="fill-ink font-mono text-[10px]">
        {(page?.lines.join(' ') ?? '').slice(0, 21)}
      </text>
    </svg>
  );
}
