import { Handle, Position, type Node, type NodeProps } from '@xyflow/react';
import { clsx } from 'clsx';
import { memo } from 'react';
import { ColourFlag } from '../../../../ui/ColourFlag.tsx';
import { MarkDrawing } from './MarkDrawing.tsx';
import { MARK_ROOM, type Mark } from './marks.ts';
import { STRIP, terminalY, type Side, type Strip } from './pictureModel.ts';

type StripData = {
  strip: Strip;
  lit: ReadonlySet<string>;
  /** Terminals whose symbols are drawn as lines while they are looked at. */
  drawn: ReadonlySet<string>;
  faded: boolean;
};
export type StripNodeType = Node<StripData, 'strip'>;

/** One part: its label and what it is, and its terminals as ticks across the edge. */
export const StripNode = memo(function StripNode({ data, selected }: NodeProps<StripNodeType>) {
  const { strip, lit, drawn, faded } = data;
  // One lead at each end needs no names; a diode's do.
  const bare = strip.isChip && strip.terminals.every((one) => one.row === 0);
  return (
    <div
      className={clsx(
        'rounded-[2px] border bg-label',
        faded ? 'text-soft' : 'text-ink',
        selected ? 'border-handle outline-2 outline-handle' : faded ? 'border-rule' : 'border-ink',
      )}
      style={{ width: strip.width, height: strip.height }}
    >
      <div
        className={clsx(
          'flex flex-col justify-center px-1.5 leading-tight',
          strip.isBoard && !faded ? 'bg-ink text-paper' : 'border-b border-rule',
        )}
        style={{ height: (strip.isChip ? STRIP.chipHead : STRIP.head) - 3 }}
      >
        <span className="flex items-center gap-1.5 text-[13px] font-semibold">
          {strip.colour !== 'none' && <ColourFlag colour={strip.colour} />}
          <span className="truncate">{strip.label}</span>
          {strip.isChip && <span className="num ml-auto text-[11px] font-normal">{strip.name}</span>}
        </span>
        {!strip.isChip && (
          <span
            className={clsx('truncate text-[11px]', strip.isBoard && !faded ? 'text-paper/85' : 'text-soft')}
          >
            {strip.name}
          </span>
        )}
      </div>
      {strip.terminals.map((terminal) => (
        <div
          key={terminal.id}
          className={clsx(
            'absolute flex items-center font-mono text-[11px]',
            lit.has(terminal.id) && 'font-semibold text-handle',
            terminal.side === 'left' ? 'left-0 pl-2.5' : 'right-0 justify-end pr-2.5',
          )}
          style={{
            top: terminalY(strip, terminal.row) - STRIP.row / 2,
            height: STRIP.row,
            maxWidth: strip.width * 0.62,
          }}
        >
          <Handle
            id={terminal.id}
            type="source"
            position={terminal.side === 'left' ? Position.Left : Position.Right}
            className={clsx(
              'terminal',
              terminal.mark?.isJoin === true && 'terminal-join',
              lit.has(terminal.id) && 'terminal-lit',
            )}
            title={`${strip.label} ${terminal.name}`}
          />
          {!bare && <span className="truncate">{terminal.name}</span>}
        </div>
      ))}
      {strip.terminals.map(
        ({ id, side, row, mark }) =>
          mark && (
            <StripMark
              key={id}
              mark={drawn.has(id) ? { ...mark, symbol: null } : mark}
              side={side}
              x={side === 'left' ? 0 : strip.width}
              y={terminalY(strip, row)}
              faded={faded && !lit.has(id) && !drawn.has(id)}
            />
          ),
      )}
      {strip.hidden > 0 && (
        <p className="absolute right-2 bottom-1.5 text-[11px] text-soft">{strip.hidden} free pins</p>
      )}
    </div>
  );
});

/** Numbers and symbol beside a terminal, outside the strip; drawn as on paper. */
function StripMark({
  mark,
  side,
  x,
  y,
  faded,
}: {
  mark: Mark;
  side: Side;
  x: number;
  y: number;
  faded: boolean;
}) {
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute overflow-visible"
      style={{ left: x, top: y }}
      width={MARK_ROOM}
      height={1}
    >
      <MarkDrawing mark={mark} side={side} faded={faded} />
    </svg>
  );
}
