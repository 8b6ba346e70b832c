import type { Plot, Probe } from '@plain-trowel/core/garden/document/schema';
import { INK, SOFT, TAG_INKS } from '../../../paper/Page.tsx';
import { MARGIN_MM } from '../../../paper/paper.ts';
import { depthText } from '../../../words/unitText.ts';

/** Depth of the drawn soil, cm; deeper probes are drawn at its floor, with their number. */
const SOIL_CM = 30;
const SOIL_MM = 28;
/** Of a probe that lies wholly in the soil, mm on paper. */
const LENGTH_MM = 12;

/** The soil as what it is, a pot, a trough or open ground, and the probe in it as it lies, its depth to scale. */
export function InSoil({ probe, plot, top }: { probe: Probe; plot: Plot; top: number }) {
  const soil = top + 10;
  const middle = MARGIN_MM + 21;
  const tip = soil + (Math.min(probe.depthCm, SOIL_CM) / SOIL_CM) * SOIL_MM;
  const isDeep = probe.depthCm > SOIL_CM;
  return (
    <g>
      <Holder kind={plot.kind} soil={soil} />
      <line
        x1={MARGIN_MM + 2.5}
        x2={MARGIN_MM + 39.5}
        y1={soil}
        y2={soil}
        stroke={SOFT}
        strokeWidth={0.35}
        strokeDasharray="2 1"
      />
      <Body probe={probe} soil={soil} tip={tip} middle={middle} />
      <line x1={middle + 7.5} x2={middle + 7.5} y1={soil} y2={tip} stroke={INK} strokeWidth={0.3} />
      <line x1={middle + 6.5} x2={middle + 8.5} y1={tip} y2={tip} stroke={INK} strokeWidth={0.3} />
      <text x={middle + 8.7} y={(soil + tip) / 2 + 1.2} fontSize={3.1}>
        {depthText(probe.depthCm)}
      </text>
      {isDeep && (
        <text x={middle + 8.7} y={soil + SOIL_MM + 1} fontSize={2.8} fill={SOFT}>
          not to scale
        </text>
      )}
    </g>
  );
}

function Holder({ kind, soil }: { kind: Plot['kind']; soil: number }) {
  const [left, right] = [MARGIN_MM, MARGIN_MM + 42];
  const floor = soil + SOIL_MM + 2;
  if (kind === 'bed' || kind === 'lawn')
    return (
      <g stroke={INK} strokeWidth={0.5} fill="none">
        <path d={`M${left} ${soil}H${right}`} />
        {Array.from({ length: 7 }, (_, at) => (
          <path key={at} d={`M${left + 2 + at * 6} ${floor}l3 -3`} strokeWidth={0.25} />
        ))}
        {kind === 'lawn' &&
          Array.from({ length: 14 }, (_, at) => (
            <path key={at} d={`M${left + 1.5 + at * 3} ${soil}l0.6 -2`} strokeWidth={0.3} />
          ))}
      </g>
    );
  const path =
    kind === 'trough'
      ? `M${left} ${soil - 4}V${floor}H${right}V${soil - 4}`
      : `M${left + 2} ${soil - 4}L${left + 6} ${floor}H${left + 36}L${left + 40} ${soil - 4}`;
  return <path d={path} fill="none" stroke={INK} strokeWidth={0.5} />;
}

/** The probe; its cable leaves upwards. */
function Body({ probe, soil, tip, middle }: { probe: Probe; soil: number; tip: number; middle: number }) {
  const body = { fill: TAG_INKS[probe.colour], stroke: INK, strokeWidth: 0.4 };
  switch (probe.placement.lies) {
    case 'upright':
      return (
        <>
          <rect x={middle - 2} y={soil - 6} width={4} height={tip - soil + 6} {...body} />
          <line x1={middle - 3.5} x2={middle + 3.5} y1={soil} y2={soil} stroke={INK} strokeWidth={0.7} />
        </>
      );
    case 'on edge':
      return (
        <>
          <path d={`M${middle - 6} ${tip}V${soil - 5}`} fill="none" stroke={INK} strokeWidth={0.4} />
          <rect x={middle - LENGTH_MM / 2} y={tip - 0.6} width={LENGTH_MM} height={1.2} {...body} />
        </>
      );
    case 'in the middle': {
      const head = Math.max(soil + 1, tip - LENGTH_MM / 2);
      return (
        <>
          <path d={`M${middle} ${head}V${soil - 5}`} fill="none" stroke={INK} strokeWidth={0.4} />
          <rect x={middle - 2} y={head} width={4} height={LENGTH_MM} {...body} />
        </>
      );
    }
  }
}
