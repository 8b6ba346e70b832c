import { workPercent, workUncertainty } from '@plain-trowel/core/calibration/workCurve';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { workDrift, workNoise, workPlusMinus, workPresent } from '@plain-trowel/core/signal/workPresent';
import { useWorked, putOnSlip } from '../../../frame/slip.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import { plotUncertainty } from '@plain-trowel/core/live/readingNow';
import type { PlotView } from '../../../links/plotView.ts';
import { stateWord } from '../../../words/plotText.ts';
import type { Hold } from './useHold.ts';

/** The main answer: the present value, large, with its noise and what it means. */
export function NowPanel({ parts, view, hold }: { parts: PlotParts; view: PlotView; hold: Hold }) {
  const { garden } = useGarden();
  const live = useLive();
  const { present } = hold;
  const worked = present && workPresent(present);
  useWorked('now', worked, true);
  if (!present || !worked)
    return (
      <p className="py-4 text-[17px]">
        No line has named <span className="num">{parts.channel?.streamName}</span> yet. If the board prints
        another name, choose it under All channels.
      </p>
    );
  const uncertainty = plotUncertainty(garden, parts, live.present);
  const isFault = view.state === 'implausible';
  return (
    <div className="flex flex-wrap items-end gap-x-8 gap-y-2 pb-1">
      <button
        type="button"
        onClick={() => putOnSlip('now', worked)}
        className="text-left"
        aria-label={`Reading now: ${formatCounts(present.rawCounts)} counts. Show the working.`}
      >
        <span className="block text-[12.5px] font-semibold text-soft">
          {hold.held ? 'Held' : 'Reading now'}
        </span>
        <span
          className={`font-mono text-[52px] leading-none font-semibold ${hold.held ? 'text-soft' : 'text-handle'}`}
        >
          {formatCounts(present.rawCounts)}
        </span>
        <span className="ml-2 text-[15px] text-soft">raw counts</span>
      </button>
      <span className="-ml-6 pb-0.5 text-[15px]">
        <WorkedNumber id="plus-minus" worked={workPlusMinus(present)} prefix="± " />
      </span>
      <dl className="grid grid-cols-[auto_auto] gap-x-4 gap-y-0.5 pb-1 text-[14.5px]">
        <dt className="text-soft">Noise</dt>
        <dd>
          <WorkedNumber id="noise" worked={workNoise(present)} prefix="± " />
        </dd>
        <dt className="text-soft">Step</dt>
        <dd>
          {present.stepCounts === null ? (
            'none seen'
          ) : (
            <span className="num">
              {formatNumber(present.stepCounts, Number.isInteger(present.stepCounts) ? 0 : 2)}{' '}
              {present.stepCounts === 1 ? 'count' : 'counts'}
            </span>
          )}
        </dd>
        <dt className="text-soft">Drift</dt>
        <dd>
          <WorkedNumber id="drift" worked={workDrift(present)} />
        </dd>
      </dl>
      <dl className="grid grid-cols-[auto_auto] gap-x-4 gap-y-0.5 pb-1 text-[14.5px]">
        <dt className="text-soft">Means</dt>
        <dd>
          {isFault ? (
            'nothing: the reading cannot be trusted'
          ) : parts.fit && view.span ? (
            <>
              <WorkedNumber
                id="percent"
                worked={workPercent(parts.fit, present.rawCounts, uncertainty, view.temperatureC)}
              />
              {uncertainty && (
                <>
                  {' '}
                  <WorkedNumber
                    id="percent-plus-minus"
                    worked={workUncertainty(parts.fit, uncertainty)}
                    shown={`± ${formatNumber(uncertainty.plusMinus, 1)}`}
                  />
                </>
              )}
            </>
          ) : (
            'nothing yet'
          )}
        </dd>
        <dt className="text-soft">State</dt>
        <dd className={isFault ? 'font-semibold text-handle' : ''}>{stateWord(view.state)}</dd>
      </dl>
      {view.span?.clampedAt && !isFault && (
        <p className="w-full text-soft">
          Clamped: {formatCounts(Math.round(view.span.beyondCounts))} counts beyond the {view.span.clampedAt}{' '}
          reference.
        </p>
      )}
    </div>
  );
}
