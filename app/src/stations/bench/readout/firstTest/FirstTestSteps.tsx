import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useEffect, useEffectEvent, useState } from 'react';
import { judgeTest } from '@plain-trowel/core/firstTest/firstTest';
import { setFirstTest } from '@plain-trowel/core/garden/edits/bench';
import { probeScale } from '@plain-trowel/core/garden/bind/channels';
import { TEST_STEPS, type TestStep } from '@plain-trowel/core/garden/document/probeSchema';
import type { Probe } from '@plain-trowel/core/garden/document/schema';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { useKeys } from '../../../../ui/keys.ts';
import { answerText, stepWords } from '../../../../words/firstTestText.ts';
import { VERDICT_WORDS } from '../../../../words/settlingText.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { isDeciding } from '@plain-trowel/core/garden/bind/scale';
import { StepPicture } from '../../calibrate/StepPicture.tsx';

/** What each step looks like. */
const PICTURES = { touch: 'touch', air: 'air', water: 'water' } as const;
const PLACE = { touch: 'hand', air: 'air', water: 'jar' } as const;

/** The three steps: the open one is watched, and ticked by itself as soon as what should be seen is seen. */
export function FirstTestSteps({ probe }: { probe: Probe }) {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const hands = live.source?.hands ?? null;
  const channel = garden.channels.find((one) => one.probeId === probe.id && isDeciding(one.quantity));
  const present = live.present.get(channel?.id ?? '');
  const firstOpen = TEST_STEPS.find((step) => probe.firstTest[step] === null) ?? null;
  const [again, setAgain] = useState<TestStep | null>(null);
  const step = again ?? firstOpen;
  const [started, setStarted] = useState<{ step: TestStep; counts: number } | null>(null);
  const verdict = live.settling.get(channel?.id ?? '')?.verdict ?? 'watching';
  const running = step !== null && started?.step === step ? started : null;
  const answer =
    channel && present && running && step
      ? judgeTest(
          step,
          {
            nowCounts: present.rawCounts,
            noiseCounts: present.noiseCounts,
            verdict,
            startCounts: running.counts,
            airCounts: probe.firstTest.air?.rawCounts ?? null,
          },
          probeScale(garden, channel),
        )
      : null;
  const begin = () => {
    if (!present || step === null) return;
    session.handled(channel?.id);
    setStarted({ step, counts: present.rawCounts });
  };
  const isSeen = answer?.kind === 'seen';
  const keep = useEffectEvent(() => {
    if (step === null || !present) return;
    const result = {
      rawCounts: present.rawCounts,
      noiseCounts: present.noiseCounts,
      takenAt: isoOf(live.nowMs),
      simulated: live.source?.simulated ?? false,
    };
    void commit(
      `first test of ${probe.label}: ${step}`,
      (before) => ({ garden: setFirstTest(before, probe.id, step, result) }),
      `${probe.label}: ${step} seen at ${formatCounts(present.rawCounts)} counts.`,
    ).then(() => {
      setStarted(null);
      setAgain(null);
    });
  });
  useEffect(() => {
    if (isSeen) keep();
  }, [isSeen]);
  useKeys([{ key: 't', does: 'Begin the open step of the first test', run: begin }]);
  return (
    <ol className="mt-2 flex flex-col">
      {TEST_STEPS.map((one, at) => {
        const words = stepWords(one, probe.kind);
        const result = probe.firstTest[one];
        const isOpen = one === step;
        return (
          <li
            key={one}
            className="grid grid-cols-[28px_minmax(0,1fr)] gap-x-3 border-b border-rule py-2.5 sm:grid-cols-[28px_132px_minmax(0,1fr)]"
          >
            <span
              aria-hidden
              className={`num text-[19px] ${result ? 'text-leaf' : isOpen ? 'text-handle' : 'text-soft'}`}
            >
              {result ? '✓' : at + 1}
            </span>
            <div className={`max-sm:hidden ${isOpen ? '' : 'opacity-60'}`}>
              <StepPicture condition={PICTURES[one]} />
            </div>
            <div>
              <h3 className="font-semibold">
                {words.title}
                <span className="sr-only">{result ? ', seen' : ', not yet seen'}</span>
              </h3>
              <p>
                {words.doThis} <span className="text-soft">{words.shouldSee}</span>
              </p>
              {result && !(isOpen && running) && (
                <p className="text-[14px]">
                  <span className="num">{formatCounts(result.rawCounts)}</span> counts
                  {result.simulated && ', stand-in'}, {dayTime(Date.parse(result.takenAt), garden.timeZone)}.{' '}
                  <button
                    type="button"
                    className="press underline underline-offset-4"
                    onClick={() => setAgain(one)}
                  >
                    Do it again
                  </button>
                </p>
              )}
              {isOpen && (
                <div className="mt-1.5 flex flex-wrap items-center gap-3">
                  {!running && (
                    <Button look="primary" hint="T" disabled={!present} onClick={begin}>
                      Watch for it
                    </Button>
                  )}
                  {running && hands && (
                    <Button
                      onClick={() => {
                        hands.move(probe.id, PLACE[one]);
                        session.refresh();
                      }}
                    >
                      {one === 'touch'
                        ? 'Touch the stand-in’s probe'
                        : one === 'air'
                          ? 'Hang it in air'
                          : 'Into the jar'}
                    </Button>
                  )}
                  {!present && (
                    <span className="text-soft">No reading comes in. Connect the board first.</span>
                  )}
                  {present && running && (
                    <p role="status" className="text-[15px]">
                      <span className="num text-[19px] font-semibold text-handle">
                        {formatCounts(present.rawCounts)}
                      </span>{' '}
                      counts, {VERDICT_WORDS[verdict]}. {answer && answerText(answer)}
                    </p>
                  )}
                </div>
              )}
            </div>
          </li>
        );
      })}
    </ol>
  );
}
