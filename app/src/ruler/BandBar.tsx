import {
  bandsOf,
  bandWord,
  type Band,
  type BandEdges,
  type WordSchool,
} from '@plain-trowel/core/quantity/bands';
import type { Curve } from '@plain-trowel/core/calibration/curve';
import { bandPlace } from './bandPlace.ts';
import { BAR_HEIGHT, LEFT } from './levels.ts';
import { bandFill } from './patterns.tsx';
import type { RulerScale } from './rulerScale.ts';

/** The bar with its bands as patterned stretches; plain while there is no calibration to place them by. */
export function BandBar({
  fit,
  edges,
  words,
  scale,
  right,
  barY,
}: {
  fit: Curve | null;
  edges: BandEdges | null;
  words: WordSchool;
  scale: RulerScale;
  right: number;
  barY: number;
}) {
  return (
    <>
      <rect x={LEFT} y={barY} width={right - LEFT} height={BAR_HEIGHT} className="fill-label" />
      {fit &&
        edges &&
        bandsOf(edges, words).map((band) => (
          <BandStretch
            key={band.name}
            band={band}
            word={bandWord(band.name, words)}
            fit={fit}
            scale={scale}
            right={right}
            barY={barY}
          />
        ))}
      <rect
        x={LEFT}
        y={barY}
        width={right - LEFT}
        height={BAR_HEIGHT}
        fill="none"
        strokeWidth={1.5}
        className="stroke-ink"
      />
    </>
  );
}

function BandStretch({
  band,
  word,
  fit,
  scale,
  right,
  barY,
}: {
  band: Band;
  word: string;
  fit: Curve;
  scale: RulerScale;
  right: number;
  barY: number;
}) {
  const place = bandPlace(band, fit, scale, LEFT, right);
  if (place === null) return null;
  const { from, to, x1, x2 } = place;
  const width = word.length * 8.2 + 10;
  const middle = (from + to) / 2;
  return (
    <g>
      <rect x={x1} y={barY} width={x2 - x1} height={BAR_HEIGHT} fill={bandFill(band.name)} />
      {to - from > width && (
        <>
          <rect x={middle - width / 2} y={barY + 21} width={width} height={20} className="fill-label" />
          <text x={middle} y={barY + 36} textAnchor="middle" className="fill-ink text-[14px] font-semibold">
            {word}
          </text>
        </>
      )}
    </g>
  );
}
