import { recordUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { Link } from 'react-router';
import { methodOf } from '@plain-trowel/core/calibration/methods';
import { outcomeOf } from '@plain-trowel/core/calibration/run';
import { workPercent, workSpan, workUncertainty } from '@plain-trowel/core/calibration/workCurve';
import { reopenCalibration } from '@plain-trowel/core/garden/edits/calibrations';
import { calibratedOfVersion } from '@plain-trowel/core/garden/bind/curveOf';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Calibration } from '@plain-trowel/core/garden/document/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { PERCENT_KINDS, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useLive, usePlot } from '../../../links/liveContext.ts';
import { plotUncertainty } from '@plain-trowel/core/live/readingNow';
import { Button } from '../../../ui/Button.tsx';
import { CURVE_WORDS } from '../../../words/calibrationText.ts';
import { stateWord } from '@plain-trowel/core/telling/plotWords';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { StandInClock, StandInControls } from '../readout/StandInControls.tsx';
import { AssumptionPanel } from './AssumptionPanel.tsx';
import { CurveChart } from './CurveChart.tsx';
import { PointTable } from './PointTable.tsx';
import { contextOf } from './useRun.ts';
import { depthText } from '../../../words/unitText.ts';

/** The calibration in use: what its percent means now, how good it is, what it rests on; and what may be done next. */
export function InUsePanel({
  parts,
  calibration,
  onAnew,
}: {
  parts: PlotParts;
  calibration: Calibration;
  onAnew: () => void;
}) {
  const { garden, commit } = useGarden();
  const live = useLive();
  const view = usePlot(garden, parts.plot.id, parts.channel?.id)?.view;
  const calibrated = calibratedOfVersion(calibration);
  const outcome = outcomeOf(calibration, contextOf(garden, parts, Date.parse(calibration.madeAt)));
  const present = live.present.get(calibration.channelId) ?? null;
  const hands = live.source?.hands ?? null;
  const { fit } = parts;
  if (!fit) return null;
  const unit = percentUnit(fit.percentKind);
  const isRaw = fit.percentKind === 'counts';
  const uncertainty = plotUncertainty(garden, parts, live.present);
  const repeat = () =>
    void commit(`repeat a reference of ${parts.probe?.label ?? ''}`, (before) => ({
      garden: reopenCalibration(before, calibration.id, {
        random: Math.random,
        nowIso: new Date().toISOString(),
      }),
    }));
  return (
    <section aria-label="Calibration in use">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <h2 className="mr-auto">
          {present && isRaw && view?.state !== 'implausible' ? (
            `Now ${formatCounts(Math.round(present.rawCounts))} counts${view ? `, ${stateWord(view.state, view.words)}` : ''}`
          ) : present && view?.span && view.state !== 'implausible' ? (
            <>
              Now{' '}
              <WorkedNumber
                id="percent"
                lead
                worked={workPercent(fit, present.rawCounts, uncertainty, view.temperatureC)}
              />
              {uncertainty && (
                <>
                  {' '}
                  <WorkedNumber
                    id="percent-plus-minus"
                    worked={workUncertainty(fit, uncertainty)}
                    shown={`± ${formatNumber(uncertainty.plusMinus, 1)}`}
                  />
                </>
              )}
              {view.span.clampedAt && (
                <span className="text-[15px] font-normal">
                  , clamped {formatCounts(Math.round(view.span.beyondCounts))} counts beyond the{' '}
                  {view.span.clampedAt} reference
                </span>
              )}
            </>
          ) : (
            methodOf(calibration.method).name
          )}
        </h2>
        <Button onClick={repeat}>Repeat a reference</Button>
        <Button look="primary" onClick={onAnew}>
          Calibrate again
        </Button>
      </div>
      <p className="mt-1 text-[14.5px]">
        {methodOf(calibration.method).name}
        {!isRaw && `, ${CURVE_WORDS[fit.shape.kind]}`},{' '}
        {dayTime(Date.parse(calibration.madeAt), garden.timeZone)}
        {calibration.who && ` by ${calibration.who}`}.{' '}
        {fit.direction === 'falling'
          ? 'Numbers fall as it gets wetter; most probes do.'
          : 'Numbers rise as it gets wetter.'}{' '}
        {!isRaw && (
          <>
            One {unit} is worth <WorkedNumber id="span" worked={workSpan(fit)} />.{' '}
          </>
        )}
        Holds for this probe, this board, {calibration.place.supplyV} V and{' '}
        {depthText(calibration.place.depthCm)}.
      </p>
      <p className="text-[14px] text-soft">{PERCENT_KINDS[fit.percentKind].long}</p>
      {calibrated && !isRaw && (
        <CurveChart
          calibrated={calibrated}
          outcome={outcome}
          now={present?.rawCounts ?? null}
          rawUnit={recordUnitOf(parts.channel)}
        />
      )}
      <PointTable
        points={calibration.points}
        outcome={outcome}
        channelId={calibration.channelId}
        isRun={false}
      />
      <AssumptionPanel run={calibration} isFixed />
      {hands && (
        <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-2">
          <StandInControls hands={hands} plotId={parts.plot.id} probeId={parts.probe?.id ?? ''} />
          {live.source?.clock && <StandInClock clock={live.source.clock} />}
        </div>
      )}
      <p className="mt-3">
        Next:{' '}
        <Link
          className="font-semibold underline underline-offset-4"
          to={sheetPath(garden.id, 'rules', 'limits', parts.plot.id)}
        >
          set the limits
        </Link>
        .
      </p>
    </section>
  );
}
