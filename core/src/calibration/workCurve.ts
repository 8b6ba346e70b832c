/** Workings of a percent, of a limit in raw counts, and of what one percent is worth. */
import { percentUnit, PERCENT_KINDS } from '../quantity/percentKind.ts';
import { input, step, worked, type Worked, type WorkedStep } from '../quantity/worked.ts';
import { LEAST_SPAN_IN_NOISE } from './checks.ts';
import { countsAtPercent, modelAt, percentPerCount, readCurve, variableOf, type Curve } from './curve.ts';
import { COVERAGE, PARTS, type Uncertainty } from './uncertainty.ts';

const SOURCES = {
  line: 'Straight line through or nearest to the references (weighted least squares).',
  inverse: 'Percent against one over the voltage, nearest to the references (weighted least squares).',
  quadratic: 'Quadratic nearest to the references (weighted least squares), kept to where it does not turn.',
  table: 'Straight from reference to reference.',
  monotone: 'Monotone cubic through the references (Fritsch & Carlson 1980).',
} as const;

const sourceOf = (curve: Curve) => `${SOURCES[curve.shape.kind]} ${PERCENT_KINDS[curve.percentKind].long}`;

/** Percent of a raw value, step by step; with its ± part by part where that is known. */
export function workPercent(
  curve: Curve,
  rawCounts: number,
  uncertainty: Uncertainty | null,
  temperatureC: number | null = null,
): Worked {
  const reading = readCurve(curve, rawCounts, temperatureC);
  const unit = percentUnit(curve.percentKind);
  const bare = stepOf(curve, rawCounts, unit);
  const steps: WorkedStep[] = [bare, ...warmthStep(curve, bare.value, temperatureC, unit)];
  if (reading.clampedAt)
    steps.push(
      step(
        {
          name: 'kept within the references',
          unit,
          decimals: 1,
          formula: 'between {dry} and {wet}: {percent}',
          inputs: {
            dry: input('driest', curve.dryPercent, '%', 1),
            wet: input('wettest', curve.wetPercent, '%', 1),
            percent: input('what the curve says', steps.at(-1)?.value ?? 0, '%', 1),
          },
        },
        ({ dry, wet, percent }) => Math.min(wet, Math.max(dry, percent)),
      ),
    );
  const [first, ...rest] = steps;
  if (!first) throw new RangeError('workPercent: no step');
  const parts = uncertainty
    ? ` ± ${uncertainty.plusMinus.toFixed(1)} ${unit}, ${COVERAGE} times the root sum of squares of ${PARTS.filter(
        (part) => uncertainty.parts[part] >= 0.005,
      )
        .map((part) => `${part} ${uncertainty.parts[part].toFixed(2)}`)
        .join(', ')}.`
    : '';
  return worked('Moisture now', [first, ...rest], {
    source: sourceOf(curve),
    note: reading.clampedAt
      ? `Clamped: the reading lies ${Math.round(reading.beyondCounts)} counts beyond the ${reading.clampedAt} reference.${parts}`
      : parts.trim() || 'How far it may be off is not known: the calibration has no points.',
    wouldChange: 'Another reference, another supply voltage or another board.',
  });
}

/** What the soil temperature adds, where the calibration found it out and a thermometer speaks. The board's table does without. */
function warmthStep(
  { shape }: Curve,
  percent: number,
  temperatureC: number | null,
  unit: string,
): WorkedStep[] {
  if ('knots' in shape || !shape.temperature || temperatureC === null) return [];
  return [
    step(
      {
        name: 'put right by the soil temperature',
        unit,
        decimals: 1,
        formula: '{percent} + {perDegree} × ({now} − {at})',
        inputs: {
          percent: input('percent by the counts', percent, '%', 1),
          perDegree: input('percent per degree', shape.temperature.perDegree, '% per °C', 3),
          now: input('soil temperature now', temperatureC, '°C', 1),
          at: input('temperature of the calibration', shape.temperature.atC, '°C', 1),
        },
      },
      (v) => v.percent + v.perDegree * (v.now - v.at),
    ),
  ];
}

function stepOf(curve: Curve, rawCounts: number, unit: string): WorkedStep {
  const now = input('reading now', rawCounts, 'counts');
  const { shape } = curve;
  if (shape.kind === 'line' && shape.temperature === null)
    return step(
      {
        name: 'percent',
        unit,
        decimals: 1,
        formula: '{dryPercent} + ({dry} − {now}) ÷ ({dry} − {wet}) × ({wetPercent} − {dryPercent})',
        inputs: {
          dry: input('dry reference', curve.dryCounts, 'counts'),
          now,
          wet: input('wet reference', curve.wetCounts, 'counts'),
          dryPercent: input('percent at the dry end', curve.dryPercent, '%', 1),
          wetPercent: input('percent at the wet end', curve.wetPercent, '%', 1),
        },
      },
      (v) => v.dryPercent + ((v.dry - v.now) / (v.dry - v.wet)) * (v.wetPercent - v.dryPercent),
    );
  if ('knots' in shape)
    return step(
      {
        name: 'percent',
        unit,
        decimals: 1,
        formula: 'between the references on both sides of {now}',
        inputs: { now },
      },
      ({ now: counts }) => modelAt(shape, counts, null),
    );
  const [w0 = 0, w1 = 0, w2 = 0] = shape.weights;
  const u = variableOf(shape, rawCounts);
  return step(
    {
      name: 'percent',
      unit,
      decimals: 1,
      formula: w2 === 0 ? '{w0} + {w1} × {u}' : '{w0} + {w1} × {u} + {w2} × {u}²',
      inputs: {
        w0: input('constant', w0, '%', 2),
        w1: input('slope', w1, '%', 2),
        u: input(
          shape.kind === 'inverse'
            ? `${Math.round(shape.unit)} ÷ reading now`
            : `(reading now − ${Math.round(shape.origin)}) ÷ ${Math.round(shape.unit)}`,
          u,
          '',
          4,
        ),
        w2: input('bend', w2, '%', 2),
      },
    },
    () => w0 + w1 * u + w2 * u * u,
  );
}

/** A limit in raw counts, with its working: the number that the board compares. */
export function workLimitCounts(curve: Curve, title: string, percent: number): Worked {
  const isLine = curve.shape.kind === 'line';
  const counts = step(
    {
      name: 'limit in raw counts',
      unit: 'counts',
      formula: isLine
        ? '{dry} + ({percent} − {dryPercent}) ÷ ({wetPercent} − {dryPercent}) × ({wet} − {dry})'
        : 'raw value between {dry} and {wet} at which the curve says {percent}',
      inputs: {
        dry: input('dry reference', curve.dryCounts, 'counts'),
        percent: input(title.toLowerCase(), percent, percentUnit(curve.percentKind), 1),
        wet: input('wet reference', curve.wetCounts, 'counts'),
        dryPercent: input('percent at the dry end', curve.dryPercent, '%', 1),
        wetPercent: input('percent at the wet end', curve.wetPercent, '%', 1),
      },
    },
    () => countsAtPercent(curve, percent),
  );
  return worked(title, [counts], {
    source: sourceOf(curve),
    note: 'The board compares raw counts, so the limit stands in both scales.',
    wouldChange: 'A new calibration moves the raw counts; the percent stays.',
  });
}

/** What one percent is worth in counts: on a line everywhere, on a curve in the middle of its range. */
export function workSpan(curve: Curve): Worked {
  const unit = `counts per ${percentUnit(curve.percentKind)}`;
  const middle = (curve.dryCounts + curve.wetCounts) / 2;
  const span = step(
    {
      name: 'span',
      unit: 'counts',
      formula: '|{wet} − {dry}|',
      inputs: {
        wet: input('wet reference', curve.wetCounts, 'counts'),
        dry: input('dry reference', curve.dryCounts, 'counts'),
      },
    },
    ({ wet, dry }) => Math.abs(wet - dry),
  );
  const perPercent =
    curve.shape.kind === 'line'
      ? step(
          {
            name: 'counts per percent',
            unit,
            decimals: 1,
            formula: '{span} ÷ {range}',
            inputs: {
              span: input('span', span.value, 'counts'),
              range: input('percent from dry to wet', curve.wetPercent - curve.dryPercent, '%', 1),
            },
          },
          ({ span: counts, range }) => counts / range,
        )
      : step(
          {
            name: 'counts per percent in the middle',
            unit,
            decimals: 1,
            formula: '1 ÷ slope of the curve at {middle}',
            inputs: { middle: input('middle of the range', middle, 'counts') },
          },
          ({ middle: counts }) => 1 / percentPerCount(curve, counts),
        );
  return worked('Counts per percent', [span, perPercent], {
    source: sourceOf(curve),
    note: `The references must be at least ${LEAST_SPAN_IN_NOISE} times the noise apart: ${Math.ceil(LEAST_SPAN_IN_NOISE * curve.noiseCounts)} counts here.`,
    wouldChange: 'A probe with more span, or a calmer signal.',
  });
}

/** ± of a reading, part by part. */
export function workUncertainty(curve: Curve, of: Uncertainty): Worked {
  const unit = percentUnit(curve.percentKind);
  const inputs = Object.fromEntries(
    PARTS.map((part) => [part.replace(' ', '_'), input(part, of.parts[part], unit, 2)]),
  );
  const sum = step(
    {
      name: '±',
      unit,
      decimals: 1,
      formula: `${COVERAGE} × √(${PARTS.map((part) => `{${part.replace(' ', '_')}}²`).join(' + ')})`,
      inputs,
    },
    (values) => COVERAGE * Math.hypot(...Object.values(values)),
  );
  return worked('± of the percent', [sum], {
    source:
      'What the curve misses the best estimate of its points by, and what that may be off by, part by part (JCGM 100:2008, Guide to the Expression of Uncertainty in Measurement).',
    note: 'The true value of this kind of percent lies within it 95 times in 100.',
    wouldChange:
      'References repeated three times, captured when steady, more of them; a known soil temperature; a calmer signal.',
  });
}
