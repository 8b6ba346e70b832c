import { clsx } from 'clsx';
import { SYMBOL_PX, type Mark } from './marks.ts';
import type { Side } from './pictureModel.ts';

/** A mark from its terminal's edge outwards, as SVG: a ground as three bars, a supply as a flag, numbers behind them; of lines the numbers above. */
export function MarkDrawing({ mark, side, faded }: { mark: Mark; side: Side; faded: boolean }) {
  const out = side === 'left' ? -1 : 1;
  const anchor = side === 'left' ? 'end' : 'start';
  const text = (x: number, y: number) => (
    <text
      x={out * x}
      y={y}
      fontSize={11}
      textAnchor={anchor}
      className={clsx('font-mono', faded ? 'fill-soft' : 'fill-ink')}
    >
      {mark.text}
    </text>
  );
  if (mark.symbol === null) return text(9, -3.5);
  return (
    <>
      {mark.symbol === 'ground' ? (
        <path
          d={`M0 0H${out * 15}M${out * 15} -6V6M${out * 18} -4V4M${out * 21} -2V2`}
          fill="none"
          className={clsx('stroke-soft', faded && 'opacity-40')}
          strokeWidth={1.5}
        />
      ) : (
        <path
          d={`M0 0H${out * 12}M${out * 12} -5L${out * 21} 0L${out * 12} 5Z`}
          className={clsx('fill-steel stroke-steel', faded && 'opacity-40')}
          strokeWidth={2}
        />
      )}
      {text(SYMBOL_PX, 3.8)}
    </>
  );
}
