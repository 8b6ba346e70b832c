import { useState } from 'react';
import {
  againHandsFree,
  allowHandsFree,
  confirmHandsFree,
  leaveOutHandsFree,
} from '@plain-trowel/core/handsFree/handsFree';
import { byId } from '@plain-trowel/core/quantity/byId';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Check } from '../../../ui/Check.tsx';
import { useKeys } from '../../../ui/keys.ts';
import { standText, stepAdvice, stepTitle } from '../../../words/handsFreeText.ts';
import { StepPicture } from '../calibrate/StepPicture.tsx';
import { HandsFreeResult } from './HandsFreeResult.tsx';
import { useHandsFree, type HandsFreeRun } from './useHandsFree.ts';

/** Air and water for one probe or several: it says what to do, takes what it sees at rest, and goes on. First test, side by side and calibration are this one pass. */
export function HandsFreeView({ channelIds, onDone }: { channelIds: readonly string[]; onDone: () => void }) {
  const [hasSound, setHasSound] = useState(true);
  const run = useHandsFree(channelIds, hasSound);
  const { state, change } = run;
  useKeys([
    {
      key: 'y',
      does: 'Say that the probes are wiped and in up to the line',
      run: () => change(confirmHandsFree),
    },
    { key: 'r', does: 'The step again', run: () => change(againHandsFree) },
  ]);
  return (
    <section aria-label="Hands-free run" className="mt-3">
      {state.step === 'done' ? (
        <HandsFreeResult state={state} onDone={onDone} />
      ) : (
        <OpenStep run={run} step={state.step} />
      )}
      <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule pt-2">
        <Button hint="R" onClick={() => change(againHandsFree)}>
          {state.step === 'done' ? 'Water again' : 'Step again'}
        </Button>
        <Button look="quiet" onClick={onDone}>
          Leave the run
        </Button>
        <Check checked={hasSound} onChange={setHasSound}>
          a tone when a step is taken
        </Check>
      </div>
    </section>
  );
}

function OpenStep({ run, step }: { run: HandsFreeRun; step: 'air' | 'water' }) {
  const { garden } = useGarden();
  const { state, answers, change } = run;
  const channels = state.channelIds.flatMap((id) => byId(garden.channels, id) ?? []);
  const kind = byId(garden.probes, channels[0]?.probeId)?.kind ?? 'capacitive stick';
  const moved = [...answers.values()].some(
    ({ kind: of }) => of === 'confirm' || of === 'wait-for-rest' || of === 'wrong-way',
  );
  return (
    <>
      <p className="text-[14px] text-soft">Step {step === 'air' ? 1 : 2} of 2</p>
      <div className="mt-1 flex flex-wrap items-start gap-4">
        <StepPicture condition={step} />
        <div className="min-w-[240px] flex-1">
          <h2 className="text-[26px]! leading-tight" aria-live="polite">
            {stepTitle(
              step,
              channels.map((one) => channelName(garden, one)),
            )}
          </h2>
          <p>{stepAdvice(step, kind)}</p>
          {step === 'water' && (
            <Button
              look={moved && !state.isConfirmed ? 'primary' : 'plain'}
              className="mt-2"
              hint="Y"
              disabled={state.isConfirmed}
              onClick={() => change(confirmHandsFree)}
            >
              {state.isConfirmed ? 'Wiped, and up to the line' : 'It is wiped, and up to the line'}
            </Button>
          )}
        </div>
      </div>
      <ul className="mt-3" aria-label="How each probe stands">
        {channels.map((channel) => (
          <ProbeRow key={channel.id} channelId={channel.id} run={run} />
        ))}
      </ul>
      <Hands step={step} channelIds={state.channelIds} />
    </>
  );
}

function ProbeRow({ channelId, run: { state, answers, change } }: { channelId: string; run: HandsFreeRun }) {
  const { garden } = useGarden();
  const live = useLive();
  const channel = byId(garden.channels, channelId);
  const answer = answers.get(channelId);
  const now = live.present.get(channelId);
  const settling = live.settling.get(channelId);
  const leftS = answer?.kind === 'wait-for-rest' ? answer.leftS : null;
  const doneFrac =
    leftS !== null && Number.isFinite(leftS) && settling
      ? settling.watchedS / Math.max(1e-9, settling.watchedS + leftS)
      : null;
  if (!channel || !answer) return null;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-2">
      <b className="w-[90px] font-semibold">{channelName(garden, channel)}</b>
      <span className="num w-[90px] text-[19px] font-semibold text-handle">
        {now ? formatCounts(Math.round(now.rawCounts)) : '–'}
      </span>
      <span className={`min-w-0 flex-1 ${answer.kind === 'taken' ? 'text-leaf' : ''}`} role="status">
        {standText(answer)}
        {doneFrac !== null && (
          <span className="ml-3 inline-block h-2.5 w-[140px] border border-ink align-middle" aria-hidden>
            <span
              className="block h-full bg-[repeating-linear-gradient(90deg,var(--steel)_0_7px,var(--paper)_7px_10px)]"
              style={{ width: `${Math.round(100 * doneFrac)}%` }}
            />
          </span>
        )}
      </span>
      {answer.kind === 'wrong-way' && (
        <Button onClick={() => change((held) => allowHandsFree(held, channelId))}>Take it as it is</Button>
      )}
      {answer.kind !== 'taken' && state.channelIds.length > 1 && (
        <Button look="quiet" onClick={() => change((held) => leaveOutHandsFree(held, channelId))}>
          Leave it out
        </Button>
      )}
    </li>
  );
}

/** The hand of a stand-in. */
function Hands({ step, channelIds }: { step: 'air' | 'water'; channelIds: readonly string[] }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const hands = live.source?.hands ?? null;
  if (!hands) return null;
  const move = () => {
    for (const id of channelIds)
      hands.move(byId(garden.channels, id)?.probeId ?? '', step === 'air' ? 'air' : 'jar');
    session.handled();
    session.refresh();
  };
  return (
    <Button className="mt-2" onClick={move}>
      {step === 'air' ? 'Stand-ins into air' : 'Stand-ins into one jar'}
    </Button>
  );
}
