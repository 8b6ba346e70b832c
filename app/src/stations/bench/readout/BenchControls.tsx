import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { LogSource } from '../../../links/logSource.ts';
import { Button } from '../../../ui/Button.tsx';
import { useKeys } from '../../../ui/keys.ts';
import { Progress } from '../../../ui/Progress.tsx';
import { clockTime } from '@plain-trowel/core/quantity/timeText';
import { ImportQuestion } from '../../season/log/ImportQuestion.tsx';
import { useTakeIn } from '../../season/log/useTakeIn.ts';
import { BenchRecording } from './BenchRecording.tsx';
import type { Hold } from './useHold.ts';
import { StandInClock, StandInControls } from './StandInControls.tsx';

/** Hold, what the open source offers, and whether the readings are being kept. */
export function BenchControls({
  plotId,
  probeId,
  hold,
  onChangeSource,
}: {
  plotId: string;
  probeId: string;
  hold: Hold;
  onChangeSource: () => void;
}) {
  const { close } = useLiveTools();
  const live = useLive();
  const { hands, clock } = live.source ?? { hands: null, clock: null };
  return (
    <section aria-label="Controls" className="mt-2 flex flex-col gap-2.5 border-b border-rule pb-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <Button look={hold.held ? 'primary' : 'plain'} hint="H" onClick={hold.toggle}>
          {hold.held ? 'Resume' : 'Hold'}
        </Button>
        {hands && <StandInControls hands={hands} plotId={plotId} probeId={probeId} />}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[14px]">
        {clock ? (
          <StandInClock clock={clock} />
        ) : (
          <span>
            <b className="font-semibold">{live.source?.label}</b>
            {live.status !== 'open' && <span className="text-soft"> {live.message ?? live.status}</span>}
          </span>
        )}
        <BenchRecording />
        <button type="button" onClick={onChangeSource} className="press underline underline-offset-4">
          Change source
        </button>
        <button type="button" onClick={() => void close()} className="press underline underline-offset-4">
          Disconnect
        </button>
        {live.source instanceof LogSource ? <KeepLog source={live.source} /> : <RecordState />}
      </div>
    </section>
  );
}

/** Takes the readings of the log that is open into the garden's log: as one step, asked about where they contradict it. */
function KeepLog({ source }: { source: LogSource }) {
  const { garden } = useGarden();
  const { readLog, done, cancel, question, answer } = useTakeIn();
  const take = () => {
    if (source.mayRecord) readLog(source);
  };
  useKeys([{ key: 'l', does: 'Take the readings of this log into the garden’s log', run: take }]);
  if (!source.mayRecord)
    return (
      <span className="ml-auto text-right text-soft max-sm:ml-0 max-sm:text-left">
        Not kept in the log: its lines carry no dates, so their times are made up.
      </span>
    );
  return (
    <span className="ml-auto max-sm:ml-0">
      {done ? (
        <Progress label={done.label} done={done.share} onCancel={cancel} />
      ) : (
        <Button hint="L" onClick={take}>
          Take its readings into the log
        </Button>
      )}
      {question && (
        <ImportQuestion
          fileName={question.fileName}
          preview={question.preview}
          garden={garden}
          onAnswer={answer}
        />
      )}
    </span>
  );
}

/** Says up to when readings are safe on disk, or why they are not kept. */
function RecordState() {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const { savedToMs, beside } = live.recorder;
  useKeys([
    {
      key: 'l',
      does: 'Keep readings in the log, or stop keeping them',
      run: () => session.setRecording(!live.recording),
    },
  ]);
  return (
    <span className="ml-auto text-right text-soft max-sm:ml-0 max-sm:text-left">
      <label className="press inline-flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-handle"
          checked={live.recording}
          onChange={(event) => session.setRecording(event.target.checked)}
        />
        <span>
          Log one each {formatNumber(garden.logEveryS)} s
          {live.recording && savedToMs !== null && (
            <>
              , saved to <span className="num">{clockTime(savedToMs, garden.timeZone)}</span>
            </>
          )}
        </span>
      </label>
      {beside > 0 && (
        <span className="block">
          {formatNumber(beside)} {beside === 1 ? 'reading' : 'readings'} met recorded ones with other values;
          both are kept, the recorded one counts.
        </span>
      )}
    </span>
  );
}
