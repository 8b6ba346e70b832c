import { workPercent, workUncertainty } from '@plain-trowel/core/calibration/workCurve';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Silence } from '@plain-trowel/core/live/silence';
import { formatCounts, formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { workDrift, workNoise, workPlusMinus, workPresent } from '@plain-trowel/core/signal/workPresent';
import type { ProbeKind } from '@plain-trowel/core/quantity/probeKind';
import { hasDrift, type PresentValue } from '@plain-trowel/core/signal/presentValue';
import { useWorked, putOnSlip } from '../../../frame/slip.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import { plotUncertainty } from '@plain-trowel/core/live/readingNow';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { headlineOf } from '../../../words/headlineText.ts';
import { stateWord, unknownWhy } from '@plain-trowel/core/telling/plotWords';
import { isUnknown } from '@plain-trowel/core/control/plotState';
import { clockTime } from '@plain-trowel/core/quantity/timeText';
import type { Hold } from './useHold.ts';
import { Verdict } from './Verdict.tsx';
import { recordUnitOf, rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { isShownRaw } from '@plain-trowel/core/quantity/percentKind';

/** The main answer: the number, large, and beside it whether it may be used; then what it means. */
export function NowPanel({ parts, view, hold }: { parts: PlotParts; view: PlotView; hold: Hold }) {
  const { garden } = useGarden();
  const live = useLive();
  const { present } = hold;
  // What a file tells is of the past, however fast it plays.
  const when = hold.held ? 'Held' : live.source?.can.isLive === false ? 'Last reading' : 'Reading now';
  const rawUnit = parts.channel ? rawUnitOf(parts.channel) : 'counts';
  const worked = present && { ...workPresent(present, rawUnit), title: when };
  useWorked('now', worked, true);
  const channelId = parts.channel?.id ?? '';
  const silence = hold.held ? null : (live.silent.get(channelId) ?? null);
  const unit = recordUnitOf(parts.channel);
  if (silence) return <Silent silence={silence} unit={unit} timeZone={garden.timeZone} />;
  if (!parts.channel && parts.probe) return <DecidesNothing kind={parts.probe.kind} />;
  if (!present || !worked)
    return (
      <p className="py-4 text-[17px]">
        No line has named <span className="num">{parts.channel?.streamName}</span> yet. If the board prints it
        under another name, say below which it is.
      </p>
    );
  const faults = live.faults.get(channelId) ?? [];
  const headline = hold.held ? null : headlineOf(null, live.settling.get(channelId) ?? null, faults);
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-8 gap-y-2 pb-1">
        <button
          type="button"
          onClick={() => putOnSlip('now', worked)}
          className="text-left"
          aria-label={`${when}: ${formatCounts(present.rawCounts)} ${unit === 'raw counts' ? 'counts' : unit}. Show the working.`}
        >
          <span className="block text-[12.5px] font-semibold text-soft">{when}</span>
          <span
            className={`font-mono text-[52px] leading-none font-semibold ${hold.held ? 'text-soft' : 'text-handle'}`}
          >
            {rawUnit === 'counts' ? formatCounts(present.rawCounts) : formatNumber(present.rawCounts, 1)}
          </span>
          <span className="ml-2 text-[15px] text-soft">{unit}</span>
        </button>
        <span className="-ml-6 pb-0.5 text-[15px]">
          <WorkedNumber id="plus-minus" worked={workPlusMinus(present, rawUnit)} prefix="± " />
        </span>
        {headline && <Verdict headline={headline} />}
      </div>
      <Meaning parts={parts} view={view} present={present} />
    </>
  );
}

/** A probe whose numbers stand under All channels and decide nothing. */
const DecidesNothing = ({ kind }: { kind: ProbeKind }) => (
  <p className="max-w-[62ch] py-4 text-[17px]">
    {kind === 'air-humidity probe'
      ? 'An air-humidity probe measures the air in the soil’s pores, and that is all but saturated in any soil a plant lives in: at depth it reads 99 to 100 % wet or dry. Its number stands under All channels; it decides nothing here.'
      : 'A thermometer says nothing about water. Its number stands under All channels and Temperature.'}
  </p>
);

/** A stream that has stopped: its last number, pale, with its age, and nothing worked out from it. */
function Silent({ silence, unit, timeZone }: { silence: Silence; unit: string; timeZone: string }) {
  const headline = headlineOf(silence, null, []);
  return (
    <div className="flex flex-wrap items-end gap-x-8 gap-y-2 pb-1">
      <p className="text-soft">
        <span className="block text-[12.5px] font-semibold">
          Last reading, {formatDuration(Math.round(silence.ageS))} ago, at {clockTime(silence.atMs, timeZone)}
        </span>
        <span className="font-mono text-[52px] leading-none font-semibold opacity-70">
          {formatCounts(Math.round(silence.rawCounts))}
        </span>
        <span className="ml-2 text-[15px]">{unit}</span>
      </p>
      {headline && <Verdict headline={headline} />}
    </div>
  );
}

/** What the number means, on one line; how calm it is, folded away. */
function Meaning({ parts, view, present }: { parts: PlotParts; view: PlotView; present: PresentValue }) {
  const { garden } = useGarden();
  const live = useLive();
  const uncertainty = plotUncertainty(garden, parts, live.present);
  const rawUnit = parts.channel ? rawUnitOf(parts.channel) : 'counts';
  const isFault = view.state === 'implausible';
  return (
    <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 text-[14.5px]">
      <p>
        <span className="text-soft">Means </span>
        {isFault ? (
          'nothing: the reading cannot be trusted'
        ) : parts.fit && view.span && isShownRaw(parts.fit.percentKind) ? (
          <b className="font-semibold">{stateWord(view.state, view.words)}</b>
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
            <b className="font-semibold">, {stateWord(view.state, view.words)}</b>
          </>
        ) : (
          <>nothing yet: {isUnknown(view.state) ? unknownWhy(view.state) : stateWord(view.state)}</>
        )}
      </p>
      <details>
        <summary className="press">{hasDrift(present) ? 'Noise, step and drift' : 'Noise and step'}</summary>
        <p className="flex flex-wrap gap-x-5">
          <span>
            <span className="text-soft">Noise</span>{' '}
            <WorkedNumber id="noise" worked={workNoise(present, rawUnit)} prefix="± " />
          </span>
          <span>
            <span className="text-soft">Step</span>{' '}
            {present.stepCounts === null ? (
              'none seen'
            ) : (
              <span className="num">
                {formatNumber(present.stepCounts, Number.isInteger(present.stepCounts) ? 0 : 2)}{' '}
                {rawUnit === 'counts' && present.stepCounts === 1 ? 'count' : rawUnit}
              </span>
            )}
          </span>
          {hasDrift(present) && (
            <span>
              <span className="text-soft">Drift</span>{' '}
              <WorkedNumber id="drift" worked={workDrift(present, rawUnit)} />
            </span>
          )}
        </p>
      </details>
      {view.span?.clampedAt && !isFault && parts.fit?.percentKind !== 'counts' && (
        <p className="w-full text-soft">
          Clamped: {formatCounts(Math.round(view.span.beyondCounts))}{' '}
          {parts.channel ? rawUnitOf(parts.channel) : 'counts'} beyond the {view.span.clampedAt} reference.
        </p>
      )}
    </div>
  );
}
