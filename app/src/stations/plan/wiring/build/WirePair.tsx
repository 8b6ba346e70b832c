import type { WireKind } from '@plain-trowel/core/wiring/buildOrder';
import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import type { End } from '@plain-trowel/core/wiring/netlist';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';

const ROW = 24;
const HEAD = 30;
/** Of a part with many terminals those beside the one that is meant are enough. */
const MOST_ROWS = 9;
const STROKES: Readonly<Record<WireKind, { readonly width: number; readonly dash?: string }>> = {
  supply: { width: 5 },
  ground: { width: 3, dash: '7 5' },
  signal: { width: 2.5 },
};

/** Two parts with their terminals in their own order, and the one wire between them; the letters keep their size on every screen. */
export function WirePair({
  circuit,
  from,
  to,
  kind,
}: {
  circuit: Circuit;
  from: End;
  to: End;
  kind: WireKind;
}) {
  const [frame, width] = useElementWidth<HTMLDivElement>(640);
  const [left, right] = [rowsOf(circuit, from), rowsOf(circuit, to)];
  if (!left || !right) return null;
  const part = Math.min(240, (width - 70) / 2);
  const height = HEAD + ROW * Math.max(left.names.length, right.names.length) + 8;
  const yOf = (at: number) => HEAD + ROW * (at + 0.5);
  const [xFrom, xTo] = [part, width - part];
  const middle = (xFrom + xTo) / 2;
  const stroke = STROKES[kind];
  return (
    <div ref={frame} className="mt-3">
      <svg width={width} height={height} role="img" aria-label="The two terminals, and the wire between them">
        <PartDrawing rows={left} x={0} width={part} isLeft />
        <PartDrawing rows={right} x={width - part} width={part} isLeft={false} />
        <path
          d={`M${xFrom} ${yOf(left.at)}H${middle}V${yOf(right.at)}H${xTo}`}
          className="fill-none stroke-ink"
          strokeWidth={stroke.width}
          {...(stroke.dash === undefined ? {} : { strokeDasharray: stroke.dash })}
        />
        <circle cx={xFrom} cy={yOf(left.at)} r={5} className="fill-handle" />
        <circle cx={xTo} cy={yOf(right.at)} r={5} className="fill-handle" />
      </svg>
    </div>
  );
}

type Rows = { readonly label: string; readonly names: readonly string[]; readonly at: number };

function rowsOf(circuit: Circuit, end: End): Rows | null {
  const placed = circuit.parts.get(end.part);
  if (!placed) return null;
  const { terminals } = placed.entry;
  const meant = terminals.findIndex(({ id }) => id === end.terminal);
  if (meant < 0) return null;
  const from = Math.max(0, Math.min(meant - (MOST_ROWS >> 1), terminals.length - MOST_ROWS));
  const shown = terminals.slice(from, from + MOST_ROWS);
  return { label: placed.part.label, names: shown.map(({ name }) => name), at: meant - from };
}

function PartDrawing({ rows, x, width, isLeft }: { rows: Rows; x: number; width: number; isLeft: boolean }) {
  const textX = isLeft ? x + width - 12 : x + 12;
  const most = Math.max(8, Math.floor((width - 20) / 8.5));
  const cut = (text: string) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
  return (
    <g>
      <rect
        x={x + 1}
        y={1}
        width={width - 2}
        height={HEAD + ROW * rows.names.length + 4}
        className="fill-paper stroke-ink"
      />
      <text x={x + 10} y={20} className="fill-ink text-[15px] font-semibold">
        {cut(rows.label)}
      </text>
      {rows.names.map((name, at) => (
        <g key={`${at} ${name}`}>
          {at === rows.at && (
            <rect x={x + 2} y={HEAD + ROW * at + 1} width={width - 4} height={ROW - 2} className="fill-ink" />
          )}
          <text
            x={textX}
            y={HEAD + ROW * (at + 0.5) + 5}
            textAnchor={isLeft ? 'end' : 'start'}
            className={
              at === rows.at ? 'num fill-paper text-[15px] font-semibold' : 'num fill-soft text-[14px]'
            }
          >
            {cut(name)}
          </text>
        </g>
      ))}
    </g>
  );
}
