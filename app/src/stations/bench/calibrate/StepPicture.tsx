import type { Condition } from '@plain-trowel/core/calibration/conditions';

const WIDTH = 132;
const HEIGHT = 112;

/** The probe: a flat stick with its printed line; its head stays above. @param tip y of its lower end */
const Probe = ({ x, tip }: { x: number; tip: number }) => (
  <g className="stroke-ink" strokeWidth={1.5}>
    <path d={`M${x - 6} ${tip - 62}h12v56l-6 6-6-6z`} className="fill-label" />
    <rect x={x - 9} y={tip - 80} width={18} height={20} className="fill-paper-2" />
    <path d={`M${x} ${tip - 80}q0-12 16-12`} fill="none" />
    <line x1={x - 6} x2={x + 6} y1={tip - 46} y2={tip - 46} className="stroke-handle" strokeWidth={2} />
  </g>
);

/** A vessel with something in it up to a level. */
const Vessel = ({ level, fill, wide = 74 }: { level: number; fill: string; wide?: number }) => {
  const left = WIDTH / 2 - wide / 2;
  return (
    <>
      <path
        d={`M${left + 2} ${level}h${wide - 4}l-4 ${104 - level}h${-(wide - 12)}z`}
        fill={fill}
        className="stroke-ink"
        strokeWidth={1}
      />
      <path d={`M${left} 44l6 62h${wide - 12}l6-62`} fill="none" className="stroke-ink" strokeWidth={2} />
    </>
  );
};

const Drops = ({ at }: { at: readonly number[] }) => (
  <>
    {at.map((x) => (
      <path key={x} d={`M${x} 96q-4 6 0 9q4-3 0-9z`} className="fill-rill" />
    ))}
  </>
);

const Scale = () => (
  <g className="stroke-ink" strokeWidth={1.5}>
    <path d="M26 104h80l6 7H20z" className="fill-paper-2" />
    <path d="M58 107h16" className="stroke-handle" />
  </g>
);

/** What to do with the probe, drawn. The words beside it say the same. */
export function StepPicture({
  condition,
  pastLine = false,
}: {
  /** A condition of a calibration, or fingers round the blade. */
  condition: Condition | 'touch';
  /** The water stands above the printed line: the mistake, drawn. */
  pastLine?: boolean;
}) {
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden className="shrink-0 border border-rule bg-paper">
      {drawing(condition, pastLine ? 44 : 62)}
    </svg>
  );
}

function drawing(condition: Condition | 'touch', waterY: number) {
  switch (condition) {
    case 'touch':
      return (
        <>
          <Probe x={60} tip={106} />
          {/* Four fingers across the blade, the thumb behind it, the arm to the right. */}
          <path
            d="M124 60H92q-6-4-14-4H52a5 5 0 0 0 0 10h20H50a5 5 0 0 0 0 10h22H52a5 5 0 0 0 0 10h20H56a5 5 0 0 0 0 9h26q12 0 16-7h26z"
            className="fill-label stroke-ink"
            strokeWidth={1.5}
          />
        </>
      );
    case 'air':
      return (
        <>
          <path d="M16 40h24m-18 14h26m52-20h20m-22 14h26" className="stroke-rule" strokeWidth={2} />
          <Probe x={66} tip={100} />
        </>
      );
    case 'water':
      return (
        <>
          <Vessel level={waterY} fill="var(--color-paper-2)" />
          <path
            d={`M32 ${waterY}q6-5 12 0t12 0 12 0 12 0 12 0 8 0`}
            fill="none"
            className="stroke-rill"
            strokeWidth={2}
          />
          <Probe x={66} tip={104} />
        </>
      );
    case 'dry soil':
      return (
        <>
          <Vessel level={58} fill="url(#band-dry)" />
          <Probe x={66} tip={98} />
        </>
      );
    case 'just right':
    case 'known content':
    case 'watered enough':
      return (
        <>
          <Vessel level={58} fill="url(#band-low)" />
          <Probe x={66} tip={98} />
        </>
      );
    case 'soaked soil':
    case 'drained a day':
      return (
        <>
          <Vessel level={58} fill="url(#band-wet)" />
          <Probe x={66} tip={96} />
          <Drops at={condition === 'soaked soil' ? [50, 66, 82] : [66]} />
        </>
      );
    case 'mixed soil':
      return (
        <g transform="translate(0 -8)">
          <Vessel level={58} fill="url(#band-low)" />
          <Probe x={66} tip={98} />
          <g transform="translate(0 8)">
            <Scale />
          </g>
        </g>
      );
    case 'pot on the scale':
      return (
        <g transform="translate(0 -8)">
          <Vessel level={58} fill="url(#band-low)" />
          <path d="M52 58q-14-18 4-34q6 18-4 34M54 58q2-22 22-28q-4 20-22 28" className="fill-leaf" />
          <Probe x={84} tip={96} />
          <g transform="translate(0 8)">
            <Scale />
          </g>
        </g>
      );
    case 'beside the meter':
      return (
        <>
          <Vessel level={58} fill="url(#band-low)" wide={96} />
          <Probe x={46} tip={98} />
          <path d="M88 98V44" className="stroke-ink" strokeWidth={3} />
          <path d="M72 42a16 16 0 0 1 32 0z" className="fill-label stroke-ink" strokeWidth={1.5} />
          <path d="M88 42l8-10" className="stroke-handle" strokeWidth={2} />
        </>
      );
    case 'felt by hand':
      return (
        <>
          <Vessel level={58} fill="url(#band-low)" wide={96} />
          <Probe x={46} tip={98} />
          <path
            d="M84 88V46q0-8 6-8t6 8v-16h20v34q0 10-10 12l-10 2v10q0 5-6 5t-6-5z"
            className="fill-label stroke-ink"
            strokeWidth={1.5}
          />
        </>
      );
    case 'time to water':
    case 'plant hangs its leaves':
      return (
        <>
          <Vessel level={58} fill="url(#band-dry)" />
          <path
            d="M50 58V30M50 34q-16 2-18 24q14-4 18-18M50 32q14 0 18 20q-14-2-18-14"
            className="fill-husk stroke-ink"
            strokeWidth={1}
          />
          <Probe x={84} tip={96} />
        </>
      );
  }
}
