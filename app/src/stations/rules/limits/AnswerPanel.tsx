import { calibrationMismatch, setWaterLine, type PlotParts } from '@plain-trowel/core/garden/edit';
import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { runVolume } from '@plain-trowel/core/control/runVolume';
import { workWait } from '@plain-trowel/core/control/workWait';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import type { PlotAnswer } from '../../../links/lineSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { reasonText } from '../../../words/reasonText.ts';
import { GuardFields } from './GuardFields.tsx';

function Lamp({ lamp }: { lamp: PlotAnswer['lamp'] }) {
  const words =
    lamp === 'on' ? 'on: below the start limit' : lamp === 'blink' ? 'blinking: no reading to trust' : 'off';
  return (
    <span className="inline-flex items-center gap-2">
      <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden>
        <path
          d="M8 1v3M8 12v3M1 8h3M12 8h3"
          strokeWidth="1.5"
          className={lamp === 'off' ? 'stroke-transparent' : 'stroke-handle'}
        />
        <rect
          x="4.75"
          y="4.75"
          width="6.5"
          height="6.5"
          className={lamp === 'off' ? 'fill-label stroke-ink' : 'fill-handle stroke-handle'}
        />
      </svg>
      {words}
    </span>
  );
}

function Wait({ leftS, minIntervalS }: { leftS: number; minIntervalS: number }) {
  const worked = workWait(minIntervalS, minIntervalS - leftS);
  return <WorkedNumber id="wait" worked={worked} shown={formatDuration(worked.value)} />;
}

function Pump({
  answer,
  nowMs,
  minIntervalS,
}: {
  answer: PlotAnswer;
  nowMs: number;
  minIntervalS: number | null;
}) {
  if (minIntervalS === null) return <>none on this plot</>;
  if (answer.pumpOn && answer.runningSinceMs !== null)
    return (
      <b className="font-semibold text-rill">
        running for <span className="num">{formatDuration((nowMs - answer.runningSinceMs) / 1000)}</span>
      </b>
    );
  return (
    <>
      off: {reasonText(answer.reason)}
      {answer.mayStartAtMs !== null && (
        <>
          ; may start in <Wait leftS={(answer.mayStartAtMs - nowMs) / 1000} minIntervalS={minIntervalS} />
        </>
      )}
    </>
  );
}

/** What the rules answer right now, the switch that lets the pump run by itself, and the guards that hold it. */
export function AnswerPanel({ parts }: { parts: PlotParts }) {
  const { commit } = useGarden();
  const { openStandIn, elsewhere } = useLiveTools();
  const live = useLive();
  const { line, plot } = parts;
  const answer = live.answers[plot.id];
  const isVoid = calibrationMismatch(parts) !== null;
  const switches = live.source?.kind === 'stand-in';
  const arm = (automatic: boolean) => {
    if (line)
      void commit(`${automatic ? 'switch on' : 'switch off'} ${line.name}`, (garden) => ({
        garden: setWaterLine(garden, line.id, { automatic }),
      }));
  };
  return (
    <section aria-label="Answer" className="mt-4 border-t border-ink pt-3">
      <div className="flex items-start justify-between gap-4 max-sm:flex-col">
        <div className="min-w-0 flex-1">
          <h2>Answer now</h2>
          {answer ? (
            <dl className="mt-1 grid grid-cols-[60px_1fr] gap-y-0.5" aria-live="polite">
              <dt className="text-soft">Pump</dt>
              <dd>
                <Pump answer={answer} nowMs={live.nowMs} minIntervalS={line?.minIntervalS ?? null} />
              </dd>
              <dt className="text-soft">Lamp</dt>
              <dd>
                <Lamp lamp={answer.lamp} />
              </dd>
            </dl>
          ) : isVoid ? (
            <p role="alert" className="border-l-[3px] border-handle pl-3">
              The calibration was made at another supply voltage or on another board and is void here. Nothing
              is decided and every output is off until both references are captured again.
            </p>
          ) : (
            <p className="text-soft">
              Nothing reads the probe right now, so nothing is decided and every output is off.{' '}
              {!elsewhere && (
                <button
                  type="button"
                  className="underline underline-offset-4"
                  onClick={() => void openStandIn()}
                >
                  Start the stand-in boards
                </button>
              )}
            </p>
          )}
          {answer && !switches && (
            <p className="mt-1 max-w-[62ch] text-[14px] text-soft">
              This is what the rules would answer to these readings. Nothing is switched from this page: a
              real pump is switched by its board’s own program.
            </p>
          )}
        </div>
        {line && (
          <Button
            className="shrink-0"
            look={line.automatic ? 'plain' : 'primary'}
            onClick={() => arm(!line.automatic)}
          >
            {line.automatic ? 'Switch watering off' : 'Let it water by itself'}
          </Button>
        )}
      </div>
      {line && (
        <>
          <p className="mt-2 text-[14.5px]">
            {line.name}: one run gives at most <WorkedNumber id="dose" worked={runVolume(line)} />, and from
            one start to the next pass at least{' '}
            <span className="num">{formatDuration(line.minIntervalS)}</span>. A reading older than{' '}
            <span className="num">{formatNumber(line.staleAfterS)} s</span> or at the rail never waters.
          </p>
          <GuardFields line={line} />
        </>
      )}
    </section>
  );
}
