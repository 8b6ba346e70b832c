import {
  bandsOf,
  bandWord,
  type Band,
  type BandEdges,
  type WordSchool,
} from '@plain-trowel/core/quantity/bands';
import { countsAtPercent, type Curve } from '@plain-trowel/core/calibration/curve';
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
  const from = scale.x(countsAtPercent(fit, band.fromTenths / 10));
  const to = scale.x(countsAtPercent(fit, band.toTenths / 10));
  // The outermost bands reach to the ends of the bar: what is clamped still is dry, or flooded. Their words stay between the pegs.
  const x1 = band.fromTenths <= 10 * fit.dryPercent ? LEFT : from;
  const x2 = band.toTenths >= 10 * fit.wetPercent ? right : to;
  // A band that lies wholly beyond what this curve can say has no place on its bar.
  if (band.toTenths <= 10 * fit.dryPercent || band.fromTenths >= 10 * fit.wetPercent) return null;
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
