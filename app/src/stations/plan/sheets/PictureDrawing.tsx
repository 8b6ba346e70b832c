import type { Layout } from '../wiring/picture/layOut.ts';
import { STRIP, terminalY, type Picture } from '../wiring/picture/pictureModel.ts';
import { FONT, INK, MONO, SOFT, TAG_INKS } from '../../../paper/Page.tsx';

const cut = (text: string, letters: number) =>
  text.length <= letters ? text : `${text.slice(0, letters - 1)}…`;

/** The wiring picture as a plain drawing, for paper and files. */
export function PictureDrawing({
  picture,
  layout,
  x,
  y,
  width,
  height,
}: {
  picture: Picture;
  layout: Layout;
  x: number;
  y: number;
  width: number;
  height: number;
}) {
  return (
    <svg
      x={x}
      y={y}
      width={width}
      height={height}
      viewBox={`0 0 ${layout.width || 1} ${layout.height || 1}`}
      preserveAspectRatio="xMidYMin meet"
      fontFamily={FONT}
    >
      {picture.strands.map((strand) => {
        const route = layout.routes.get(strand.id) ?? [];
        const own =
          strand.kind === 'signal' && strand.colour !== 'none' && strand.colour !== 'white'
            ? TAG_INKS[strand.colour]
            : INK;
        return (
          <polyline
            key={strand.id}
            points={route.map((point) => `${point.x},${point.y}`).join(' ')}
            fill="none"
            stroke={strand.kind === 'ground' ? SOFT : strand.kind === 'supply' ? '#3d5361' : own}
            strokeWidth={strand.kind === 'supply' ? 2.6 : strand.kind === 'ground' ? 1.2 : 1.8}
            {...(strand.kind === 'ground' ? { strokeDasharray: '5 3' } : {})}
          />
        );
      })}
      {picture.strips.map((strip) => {
        const place = layout.places.get(strip.id) ?? { x: 0, y: 0 };
        return (
          <g key={strip.id} transform={`translate(${place.x} ${place.y})`}>
            <rect width={strip.width} height={strip.height} fill="#ffffff" stroke={INK} strokeWidth={1} />
            {strip.isBoard && <rect width={strip.width} height={STRIP.head - 3} fill={INK} />}
            {strip.colour !== 'none' && (
              <rect
                x={6}
                y={6}
                width={8}
                height={10}
                fill={TAG_INKS[strip.colour]}
                stroke={INK}
                strokeWidth={0.8}
              />
            )}
            <text
              x={strip.colour === 'none' ? 6 : 19}
              y={15}
              fontSize={13}
              fontWeight={650}
              fill={strip.isBoard ? '#ffffff' : INK}
            >
              {cut(strip.label, 20)}
            </text>
            <text
              x={strip.isChip ? strip.width - 6 : 6}
              y={strip.isChip ? 15 : 28}
              fontSize={10}
              textAnchor={strip.isChip ? 'end' : 'start'}
              fill={strip.isBoard ? '#ffffff' : SOFT}
            >
              {cut(strip.name, 30)}
            </text>
            {strip.terminals.map((terminal) => {
              const left = terminal.side === 'left';
              const edge = left ? 0 : strip.width;
              const middle = terminalY(strip, terminal.row);
              const bare = strip.isChip && strip.terminals.every((one) => one.row === 0);
              return (
                <g key={terminal.id}>
                  <line x1={edge - 6} x2={edge + 6} y1={middle} y2={middle} stroke={INK} strokeWidth={3} />
                  {!bare && (
                    <text
                      x={left ? 10 : strip.width - 10}
                      y={middle + 3.6}
                      fontSize={11}
                      fontFamily={MONO}
                      textAnchor={left ? 'start' : 'end'}
                    >
                      {cut(terminal.name, 14)}
                    </text>
                  )}
                </g>
              );
            })}
          </g>
        );
      })}
    </svg>
  );
}
