import { recordUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { useMemo, useState } from 'react';
import type { Assumed } from '@plain-trowel/core/calibration/assumptions';
import type { Curve, CurveKind } from '@plain-trowel/core/calibration/curve';
import { usualSpanOf } from '@plain-trowel/core/garden/bind/channels';
import type { KnownIssue } from '@plain-trowel/core/calibration/methods';
import { noiseOfRun, worthOf, type Outcome } from '@plain-trowel/core/calibration/run';
import { anotherTime, areClose, CUT_OFFS } from '@plain-trowel/core/calibration/cutOffs';
import type { Calibrated } from '@plain-trowel/core/calibration/uncertainty';
import { needsReason } from '@plain-trowel/core/calibration/checks';
import { uncertaintyOf } from '@plain-trowel/core/calibration/uncertainty';
import { workSpan, workUncertainty } from '@plain-trowel/core/calibration/workCurve';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import { formatNumber, formatPercent } from '@plain-trowel/core/quantity/format';
import {
  PERCENT_KINDS,
  percentUnit,
  risesDrying,
  shownCounts,
} from '@plain-trowel/core/quantity/percentKind';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useLive } from '../../../links/liveContext.ts';
import { factoryText, inStepText, knownText } from '../../../words/calibrationText.ts';
import { AssumptionPanel } from './AssumptionPanel.tsx';
import { ConvertChoice } from './ConvertChoice.tsx';
import { CurveChart } from './CurveChart.tsx';
import { CurveChoice } from './CurveChoice.tsx';
import { FindingList } from './FindingList.tsx';
import { FinishForm } from './FinishForm.tsx';

/** What the points of a run add up to: what stands against it, the curve, how good it is, and taking it into use. */
export function OutcomePanel({ parts, run, outcome }: { parts: PlotParts; run: Run; outcome: Outcome }) {
  const live = useLive();
  const [picked, setPicked] = useState<CurveKind | null>(null);
  const usable = (kind: CurveKind | null) =>
    outcome.tried.some((one) => one.kind === kind && one.curve.ok) ? kind : null;
  const kind = usable(picked) ?? outcome.chosen;
  const noise = noiseOfRun(run);
  const { calibrated, findings, refused } = useMemo(
    () => worthOf(outcome, kind, noise),
    [outcome, kind, noise],
  );
  const now = live.present.get(run.channelId)?.rawCounts ?? null;
  const isAsked = [...outcome.known.values()].some((one) => !one.ok && one.issue.kind === 'nothing-known');
  return (
    <section aria-label="What it adds up to" className="mt-4">
      {outcome.inStep && <p className="mb-1">{inStepText(outcome.inStep)}</p>}
      {outcome.factory && <p className="mb-1">{factoryText(outcome.factory)}</p>}
      {outcome.feel && outcome.feel.astray > 0 && (
        <p className="mb-1">
          {outcome.feel.astray} of what you felt lies on the wrong side of its cut: a finger is no meter.
        </p>
      )}
      <CountForNothing run={run} outcome={outcome} />
      <FindingList run={run} findings={findings} />
      {outcome.missing > 0 ? (
        <p className="mt-2 text-soft">
          {isAsked
            ? `Next: ${knownText({ kind: 'nothing-known' })}. Without it the weights mean nothing.`
            : `${outcome.missing === 1 ? 'One more point' : `${outcome.missing} more points`}, and there is a curve. Which way the numbers run comes out by itself.`}
        </p>
      ) : calibrated && kind && !refused && outcome.percentKind === 'counts' ? (
        <>
          <CutOffsSum parts={parts} curve={calibrated.curve} assumed={outcome.assumed} />
          <AssumptionPanel run={run} />
          <FinishForm key={run.id} parts={parts} kind={kind} needsReason={needsReason(findings)} isRaw />
        </>
      ) : calibrated && kind && !refused ? (
        <>
          <h2 className="mt-3">
            {PERCENT_KINDS[outcome.percentKind].long.split(':')[0]}, ±{' '}
            {formatNumber(middleOf(calibrated, noise).plusMinus, 1)} % in the middle
          </h2>
          <p className="text-[14.5px]">
            {calibrated.curve.direction === 'falling'
              ? 'Numbers fall as it gets wetter; most probes do. '
              : 'Numbers rise as it gets wetter. '}
            One {percentUnit(outcome.percentKind)} is worth{' '}
            <WorkedNumber id="span" worked={workSpan(calibrated.curve)} />. How far off it may be:{' '}
            <WorkedNumber
              id="calibration-plus-minus"
              lead
              worked={workUncertainty(calibrated.curve, middleOf(calibrated, noise))}
            />
            .
          </p>
          {outcome.tried.length > 1 && <CurveChoice outcome={outcome} kind={kind} onPick={setPicked} />}
          <ConvertChoice parts={parts} run={run} outcome={outcome} />
          <CurveChart
            calibrated={calibrated}
            outcome={outcome}
            now={now}
            rawUnit={recordUnitOf(parts.channel)}
          />
          <AssumptionPanel run={run} />
          <FinishForm key={run.id} parts={parts} kind={kind} needsReason={needsReason(findings)} />
        </>
      ) : (
        <p className="mt-2 text-soft">There is no curve to use yet; the lines above say why.</p>
      )}
    </section>
  );
}

/** Points that stand for no percent, and why: they are kept, and the curve goes without them. */
function CountForNothing({ run, outcome }: { run: Run; outcome: Outcome }) {
  return run.points.map((point) => {
    const known = outcome.known.get(point.id);
    // Where nothing was typed, or nothing is known of the pot yet, the form above says what is wanted.
    if (!point.used || !known || known.ok || ASKED_FOR.has(known.issue.kind)) return null;
    return (
      <p key={point.id} className="mb-1 border-l-[3px] border-handle pl-3 text-[14.5px]">
        <b className="font-semibold text-handle">Counts for nothing:</b> {point.condition}
        {point.typed !== null && <span className="num">, typed {formatNumber(point.typed, 1)}</span>}:{' '}
        {knownText(known.issue)}.
      </p>
    );
  });
}

const ASKED_FOR: ReadonlySet<KnownIssue['kind']> = new Set(['not-typed', 'no-percent', 'nothing-known']);

/** Two cut-offs in raw counts, and how far a reading may be off in the same. */
function CutOffsSum({ parts, curve, assumed }: { parts: PlotParts; curve: Curve; assumed: Assumed }) {
  if (!parts.channel) return null;
  const spread = anotherTime(assumed, usualSpanOf(parts.garden, parts.channel));
  const isClose = areClose(shownCounts(curve, CUT_OFFS.start), shownCounts(curve, CUT_OFFS.stop), spread);
  return (
    <>
      <h2 className="mt-3">
        Water {risesDrying(curve) ? 'above' : 'below'} {formatPercent(CUT_OFFS.start, curve)}, enough at{' '}
        {formatPercent(CUT_OFFS.stop, curve)}
      </h2>
      <p className="max-w-[68ch] text-[14.5px]">
        {curve.direction === 'falling'
          ? 'Numbers fall as it gets wetter; most probes do. '
          : 'Numbers rise as it gets wetter. '}
        Warmer or colder, or dried out another time, the same soil may read some{' '}
        <span className="num">± {formatNumber(spread)} counts</span> differently, by what such probes usually
        do.{' '}
        {isClose && (
          <b className="font-semibold">
            The two numbers lie hardly further apart than that: it would often water without need. Take them
            further apart.{' '}
          </b>
        )}
        Limits, lamp and program go by these counts alone; no percent is shown, for nothing says what they
        mean.
      </p>
    </>
  );
}

function middleOf(calibrated: Calibrated, noiseCounts: number) {
  const { dryCounts, wetCounts } = calibrated.curve;
  return uncertaintyOf(calibrated, {
    rawCounts: (dryCounts + wetCounts) / 2,
    noiseCounts,
    readings: 12,
    stepCounts: 1,
    temperatureC: null,
  });
}
