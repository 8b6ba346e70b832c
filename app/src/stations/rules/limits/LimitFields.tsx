import { useKeeping, useTyped } from '../../../ui/useTyped.ts';
import { setLimit } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { countsAtPercent, modelAt, readCurve, type Curve } from '@plain-trowel/core/calibration/curve';
import { workLimitCounts } from '@plain-trowel/core/calibration/workCurve';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import {
  checkLimits,
  type LimitIssue,
  type LimitName,
  type LimitRange,
  type Limits,
} from '@plain-trowel/core/control/limits';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { Field } from '../../../ui/Field.tsx';
import { limitText } from '../../../words/issueText.ts';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { isShownRaw } from '@plain-trowel/core/quantity/percentKind';
import { rawUnitOf } from '@plain-trowel/core/garden/bind/scale';

type Scale = 'percent' | 'counts';
const NAMES = { start: 'startTenths', stop: 'stopTenths' } as const;

/** One limit by typing, in either scale: what is typed in one shows at once in the other. */
export function LimitField({
  which,
  isBare = false,
  scale,
  rawUnit,
  fit,
  limits,
  noiseTenths,
  range,
  plotId,
  plotName,
}: {
  which: LimitName;
  /** In a table, where the head names the column. */
  isBare?: boolean;
  scale: Scale;
  /** How the probe's own numbers are called. */
  rawUnit: string;
  fit: Curve;
  limits: Limits;
  noiseTenths: number;
  range: LimitRange;
  plotId: string;
  plotName: string;
}) {
  const { commit } = useGarden();
  const { typed, type, drop, handOver } = useTyped();
  const kept =
    scale === 'percent'
      ? (limits[NAMES[which]] / 10).toFixed(1)
      : String(Math.round(countsAtPercent(fit, limits[NAMES[which]] / 10)));
  const tenths = typed === null ? null : tenthsFrom(typed, scale, fit);
  const issue: LimitIssue | null =
    typed === null
      ? null
      : tenths === null
        ? { kind: 'not-a-number', at: which }
        : checkLimits({ ...limits, [NAMES[which]]: tenths }, noiseTenths, range);

  const keep = useKeeping(typed, tenths !== null && issue === null, () => {
    if (tenths === null) return;
    handOver();
    // Its own flag alone: the other one may have been moved since this was drawn.
    void commit(`${which} limit of ${plotName}`, (garden) => ({
      garden: setLimit(garden, plotId, which, tenths),
    }));
  });
  return (
    <Field
      label={
        isBare ? (
          <span className="sr-only">{`${which === 'start' ? 'Start' : 'Stop'} limit of ${plotName}`}</span>
        ) : (
          `${which === 'start' ? 'Start' : 'Stop'} limit`
        )
      }
      unit={scale === 'percent' ? percentUnit(fit.percentKind) : rawUnit}
      error={issue ? limitText(issue, fit) : undefined}
      className="w-[160px]"
    >
      {(props) => (
        <input
          {...props}
          className="field num w-full text-right"
          inputMode="decimal"
          value={typed ?? kept}
          onChange={(event) => type(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep();
            if (event.key === 'Escape') drop();
          }}
        />
      )}
    </Field>
  );
}

/** What is typed, in tenths of a percent; null when it is no number. */
function tenthsFrom(typed: string, scale: Scale, fit: Curve): number | null {
  const read = readNumber(typed.trim().replace(',', '.'));
  if (read.kind !== 'number') return null;
  // Beyond the scale of two cut-offs there is no number to keep: that is said, not clamped.
  const of =
    fit.percentKind === 'counts' ? modelAt(fit.shape, read.value, null) : readCurve(fit, read.value).percent;
  return Math.round((scale === 'percent' ? read.value : of) * 10);
}

/** Both limits in percent and in raw counts. Nothing that contradicts itself is kept. */
export function LimitFields({
  parts,
  fit,
  limits,
  noiseTenths,
  range,
}: {
  parts: PlotParts;
  fit: Curve;
  limits: Limits;
  noiseTenths: number;
  range: LimitRange;
}) {
  const rawUnit = parts.channel ? rawUnitOf(parts.channel) : 'counts';
  // A tension is read and typed in kPa alone, on several probes together in percent alone.
  const scales: Scale[] = isShownRaw(fit.percentKind)
    ? ['counts']
    : parts.deciders.by === 'one'
      ? ['percent', 'counts']
      : ['percent'];
  const common = {
    rawUnit,
    fit,
    limits,
    noiseTenths,
    range,
    plotId: parts.plot.id,
    plotName: parts.plot.name,
  };
  return (
    <section aria-label="Limits by typing" className="mt-1">
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        {(['start', 'stop'] as const).map((which) => (
          <fieldset key={which} className="flex flex-wrap items-start gap-4">
            <legend className="sr-only">{which} limit</legend>
            {scales.map((scale) => (
              <LimitField key={scale} which={which} scale={scale} {...common} />
            ))}
          </fieldset>
        ))}
      </div>
      <p className="mt-2 text-[14px] text-soft">
        The board compares {rawUnit === 'counts' ? 'raw counts' : `the probe’s own ${rawUnit}`}: it starts{' '}
        {fit.direction === 'falling' ? 'above' : 'below'}{' '}
        {isShownRaw(fit.percentKind) ? (
          <>
            {formatPercent(limits.startTenths / 10, fit)} and stops at{' '}
            {formatPercent(limits.stopTenths / 10, fit)}
          </>
        ) : (
          <>
            <WorkedNumber
              id="start"
              lead
              worked={workLimitCounts(fit, 'Start limit', limits.startTenths / 10)}
            />{' '}
            and stops at{' '}
            <WorkedNumber id="stop" worked={workLimitCounts(fit, 'Stop limit', limits.stopTenths / 10)} />
          </>
        )}
        . Drag a flag, or focus it and use the arrow keys; with Shift it moves{' '}
        {fit.percentKind === 'counts'
          ? 'ten times as far'
          : `a whole ${fit.percentKind === 'tension' ? 'kPa' : 'percent'}`}
        .
      </p>
    </section>
  );
}
