import { useState } from 'react';
import { Link } from 'react-router';
import { ArmDialog } from './program/ArmDialog.tsx';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { skippedUntil, type LineAnswer } from '@plain-trowel/core/control/host/answers';
import { formatDuration, formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import { runVolume } from '@plain-trowel/core/control/runVolume';
import { workWait } from '@plain-trowel/core/control/workWait';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { decidedView } from '@plain-trowel/core/live/plotView';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import type { BoardAtTheLine } from '@plain-trowel/core/following/boardTalk';
import { Button } from '../../../ui/Button.tsx';
import { reasonText } from '../../../words/reasonText.ts';
import { Lamp, lampWords } from './Lamp.tsx';
import { OrderPanel } from './program/OrderPanel.tsx';
import { SkipPanel } from './program/SkipPanel.tsx';
import { plotStateName } from './signals/signalText.ts';

/** What the line does now and why, and until when it is held. */
function Doing({ answer, line, nowMs }: { answer: LineAnswer; line: WaterLine; nowMs: number }) {
  if (answer.isOn && answer.runningSinceMs !== null)
    return (
      <b className="font-semibold text-rill">
        running for <span className="num">{formatDuration((nowMs - answer.runningSinceMs) / 1000)}</span>
        {answer.plannedS !== null && (
          <>
            {' '}
            of <span className="num">{formatDuration(Math.min(answer.plannedS, line.maxRunS))}</span>
          </>
        )}
        : {reasonText(answer.reason)}
      </b>
    );
  const leftS = answer.mayStartAtMs === null ? null : (answer.mayStartAtMs - nowMs) / 1000;
  return (
    <>
      off: {skippedUntil(answer, nowMs) === null ? reasonText(answer.reason) : 'you told it to skip'}
      {leftS !== null && leftS > 0 && (
        <>
          ; may start in{' '}
          {answer.reason === 'min-interval' ? (
            <WorkedNumber
              id="wait"
              worked={workWait(line.minIntervalS, line.minIntervalS - leftS)}
              shown={formatDuration(leftS)}
            />
          ) : (
            <span className="num">{formatDuration(leftS)}</span>
          )}
        </>
      )}
    </>
  );
}

/** What the rules answer right now, the switch that lets the line run by itself, and orders by hand. */
export function AnswerPanel({ parts }: { parts: PlotParts }) {
  const { garden, commit } = useGarden();
  const live = useLive();
  const { stored } = useLiveTools();
  const { line, plot } = parts;
  const view = decidedView(garden, parts, live, stored);
  const answer = line && live.answers[line.id];
  const signal = live.signals[plot.id];
  const board = line && live.source?.boardAt(line.boardId);
  const [isAsking, setAsking] = useState(false);
  const switchOff = () => {
    if (!line) return;
    const number = board?.numberOf(line.id) ?? null;
    // Whoever switches it off means the pump, not the paper.
    if (number !== null) {
      board?.type(`set ${number} water off`);
      board?.type('limits');
    }
    void commit(`switch off ${line.name}`, (before) => ({
      garden: setWaterLine(before, line.id, { automatic: false }),
    }));
  };
  return (
    <section aria-label="Answer" className="mt-4 border-t border-ink pt-3">
      <div className="flex items-start justify-between gap-4 max-sm:flex-col">
        <div className="min-w-0 flex-1">
          <h2>Answer now</h2>
          {live.source ? (
            <dl className="mt-1 grid grid-cols-[60px_1fr] gap-y-0.5" aria-live="polite">
              <dt className="text-soft">Pump</dt>
              <dd>
                {line && answer ? (
                  <Doing answer={answer} line={line} nowMs={live.nowMs} />
                ) : line ? (
                  'not heard yet'
                ) : (
                  'none on this plot'
                )}
              </dd>
              <dt className="text-soft">Lamp</dt>
              <dd className="flex items-center gap-2">
                <Lamp colour={signal?.lamp ?? 'off'} />
                {signal
                  ? `${lampWords(signal)}: ${plotStateName(signal.state, view)}`
                  : 'off: what holds is not shown by your list of signals'}
              </dd>
              {line && answer && (
                <>
                  <dt className="text-soft">24 h</dt>
                  <dd>
                    <span className="num">{formatNumber(answer.givenMl)}</span> of{' '}
                    <span className="num">{formatVolume(line.dailyMaxMl)}</span> counted towards the daily
                    maximum
                    {answer.noRise > 0 &&
                      !answer.isLocked &&
                      `; ${answer.noRise} of ${line.rise.times} doses did not raise the reading`}
                  </dd>
                </>
              )}
            </dl>
          ) : (
            <Unheard />
          )}
          {live.source && !live.source.can.decides && (
            <p className="mt-1 max-w-[62ch] text-[14px] text-soft">
              This is what the rules would answer to these readings. Nothing is switched from this page: a
              real pump is switched by its board’s own program.
            </p>
          )}
        </div>
        {line && line.program.kind !== 'alert-only' && (
          <Button
            className="shrink-0"
            look={line.automatic ? 'plain' : 'primary'}
            onClick={() => (line.automatic ? switchOff() : setAsking(true))}
          >
            {line.automatic ? 'Switch watering off' : 'Let it water by itself'}
          </Button>
        )}
        {line && isAsking && <ArmDialog line={line} onClose={() => setAsking(false)} />}
      </div>
      {line && board && <BoardSays line={line} board={board} />}
      {line && (
        <>
          <p className="mt-2 text-[14.5px]">
            {line.name}: one run gives at most <WorkedNumber id="dose" worked={runVolume(line)} />, and from
            one start to the next pass at least{' '}
            <span className="num">{formatDuration(line.minIntervalS)}</span>. A reading older than{' '}
            <span className="num">{formatDuration(line.staleAfterS)}</span> or at the rail never waters.
          </p>
          <OrderPanel line={line} />
          <SkipPanel line={line} />
        </>
      )}
    </section>
  );
}

/** Where the board itself stands otherwise than the garden: the garden is not what switches the pump. */
function BoardSays({ line, board }: { line: WaterLine; board: BoardAtTheLine }) {
  const { garden } = useGarden();
  const waters = board.program.limits[line.id]?.water;
  // What the board does while nobody knows it is of no matter where it may water.
  if (waters === undefined ? line.automatic : (waters === 'on') === line.automatic) return null;
  if (waters === undefined)
    return (
      <p role="alert" className="mt-2 max-w-[62ch] border-l-[3px] border-handle pl-3">
        The board has not said whether it still waters by itself. Look at the pump, or cut its supply.
      </p>
    );
  return (
    <p role="alert" className="mt-2 max-w-[62ch] border-l-[3px] border-handle pl-3">
      {waters === 'on'
        ? 'The board itself still waters by itself: it has not taken the change, or has not answered yet.'
        : 'The board itself does not water by itself yet. Send it the garden’s settings'}
      {waters !== 'on' && (
        <>
          {' '}
          on <Link to={sheetPath(garden.id, 'rules', 'sketch', line.plotId)}>Rules, Sketch</Link>.
        </>
      )}
    </p>
  );
}

function Unheard() {
  const { openStandIn, elsewhere } = useLiveTools();
  return (
    <p className="text-soft">
      Nothing reads the probe right now, so nothing is decided and every output is off.{' '}
      {!elsewhere && (
        <button type="button" className="underline underline-offset-4" onClick={() => void openStandIn()}>
          Start the stand-in boards
        </button>
      )}
    </p>
  );
}
