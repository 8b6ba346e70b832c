import { rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { MOST } from '@plain-trowel/core/quantity/bounds';
import { useState } from 'react';
import { mixingInputs, methodOf, missingInput, type Step } from '@plain-trowel/core/calibration/methods';
import { REPEATS_FRAC } from '@plain-trowel/core/calibration/checks';
import { meanOf, spanOfMeans, typedCounts } from '@plain-trowel/core/calibration/runPoint';
import { planMixing, waterToAdd } from '@plain-trowel/core/calibration/mixing';
import { giveUpRun, takeBackCapture } from '@plain-trowel/core/garden/edits/calibrations';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { PointOf, Run } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { TAKEN_AT_REST } from '@plain-trowel/core/handsFree/atRest';
import { Button } from '../../../ui/Button.tsx';
import { Check } from '../../../ui/Check.tsx';
import { playTone } from '../../../ui/tone.ts';
import { useKeys } from '../../../ui/keys.ts';
import { CaptureBar } from './CaptureBar.tsx';
import { DrainNote } from './DrainNote.tsx';
import { RunInputs } from './RunInputs.tsx';
import { StepPicture } from './StepPicture.tsx';
import { useCapture } from './useRun.ts';

const WANTED_REPEATS = 3;

/** The point of a step: by its condition, or in a series of like conditions by its place. */
function pointOfStep(run: Run, steps: readonly Step[], at: number): PointOf | null {
  const step = steps[at];
  if (!step) return null;
  const isSeries = steps.filter((one) => one.condition === step.condition).length > 1;
  const of = run.points.filter((point) => point.condition === step.condition);
  return of[isSeries ? at : 0] ?? null;
}

/** A weight that differs from the one that the step was captured with, by more than the scale rounds. */
function isAnother(run: Run, point: PointOf | null, typed: number | null): boolean {
  if (run.method !== 'mixing' || typed === null || point?.typed == null) return false;
  return Math.abs(typed - point.typed) > (run.inputs.scaleStepG ?? 1) / 2;
}

/** What the probe read in the other conditions of a run, counts. */
const readElsewhere = (run: Run, step: Step): readonly number[] =>
  run.points
    .filter((one) => one.condition !== step.condition && one.used && one.captures.length > 0)
    .map(meanOf);

/** Why nothing more can be captured here; null while there is room. */
function fullText(run: Run, point: PointOf | null): string | null {
  if (point && point.captures.length >= MOST.captures)
    return `This reference was captured ${MOST.captures} times; more are not kept. Redo one of them, or go on.`;
  if (!point && run.points.length >= MOST.points)
    return `${MOST.points} points are the most that a calibration keeps. Finish it, or redo one.`;
  return null;
}

/** The run step by step: what to do, drawn and said; what the stream says; the capture. It can be left and taken up again. */
export function RunGuide({ parts, run }: { parts: PlotParts; run: Run }) {
  const { commit } = useGarden();
  const method = methodOf(run.method);
  const steps = method.steps(run.inputs);
  // Taken up again, a run goes on at its first open step; a capture does not move it on, for it may be repeated.
  const [chosen, setChosen] = useState(() =>
    Math.max(
      0,
      steps.findIndex((_, at) => !pointOfStep(run, steps, at)),
    ),
  );
  const [byItself, setByItself] = useState(true);
  const at = method.openEnded ? 0 : Math.min(chosen, Math.max(0, steps.length - 1));
  const step = steps[at];
  const point = method.openEnded ? null : pointOfStep(run, steps, at);
  const missing = missingInput(method, run.inputs);
  const capture = useCapture(parts);
  const last = method.openEnded ? (run.points.at(-1) ?? null) : point;
  const go = (to: number) => setChosen(Math.min(Math.max(0, to), steps.length - 1));
  const redo = () => {
    if (last)
      void commit('take the last capture back', (garden) => ({
        garden: takeBackCapture(garden, run.channelId, last.id),
      }));
  };
  useKeys([
    { key: 'n', does: 'Go to the next step', run: () => go(at + 1) },
    { key: 'b', does: 'Go back a step', run: () => go(at - 1) },
    { key: 'r', does: 'Take the last capture back, to do it again', run: redo },
  ]);
  const giveUp = () =>
    void commit(
      `give up calibrating ${parts.probe?.label ?? ''}`,
      (garden) => ({ garden: giveUpRun(garden, run.channelId) }),
      'The run is given up. The calibration in use stays.',
    );
  return (
    <section aria-label="Next step" className="border-b border-rule pb-3">
      <p className="flex flex-wrap items-baseline gap-x-3 text-[14px] text-soft">
        <b className="font-semibold text-ink">{method.name}</b>
        {method.openEnded
          ? `${run.points.length} captured`
          : `step ${at + 1} of ${Math.max(1, steps.length)}`}
        <button type="button" className="press underline underline-offset-4" onClick={giveUp}>
          Give this run up
        </button>
      </p>
      <RunInputs run={run} method={method} />
      {missing ? (
        <p className="mt-2 border-l-[3px] border-handle pl-3">Next: fill in “{missing.label}”.</p>
      ) : !step ? null : (
        <>
          <div className="mt-2 flex flex-wrap items-start gap-4">
            <StepPicture condition={step.condition} />
            <div className="min-w-[240px] flex-1">
              <h2>{step.title}</h2>
              <p>{step.doing}</p>
              <MixingAdvice run={run} at={at} />
              {run.method === 'mixing' && point && (
                <p className="mt-1 text-[14px] text-soft">
                  A repeat has the same weight, {formatNumber(point.typed ?? 0, 1)} g, and needs nothing
                  typed. Another weight begins the next mixture by itself.
                </p>
              )}
              {point && typedCounts(point) !== null && (
                <p className="mt-1 text-[14px] text-soft">
                  Taken as typed, {formatNumber(typedCounts(point) ?? 0)} counts. Another number replaces it.
                </p>
              )}
              {point && typedCounts(point) === null && (
                <Repeats
                  point={point}
                  steps={steps.length}
                  at={at}
                  spanCounts={spanOfMeans(run.points.filter((one) => one.used))}
                  rawUnit={parts.channel ? rawUnitOf(parts.channel) : 'counts'}
                />
              )}
            </div>
          </div>
          <CaptureBar
            key={`${at} ${run.points.length} ${point?.captures.length ?? 0}`}
            parts={parts}
            method={method}
            again={point !== null}
            beside={run.points.flatMap((one) => (typedCounts(one) === null ? one.captures : []))}
            full={fullText(run, point)}
            others={method.typed ? [] : readElsewhere(run, step)}
            byItself={byItself && TAKEN_AT_REST.includes(run.method)}
            onCapture={async (typed, felt, alone) => {
              // Another weight is another mixture, whether or not anybody has gone on to its step.
              const isNext = isAnother(run, point, typed);
              const taken = isNext ? Math.min(run.points.length, steps.length - 1) : at;
              setChosen(taken);
              const saved = await capture(
                {
                  condition: step.condition,
                  typed: typed ?? point?.typed ?? null,
                  felt,
                },
                isNext ? null : (point?.id ?? null),
              );
              if (!saved || !alone) return saved;
              playTone(880);
              setChosen(Math.min(taken + 1, steps.length - 1));
              return saved;
            }}
          >
            {!method.openEnded && (
              <>
                <Button hint="B" disabled={at === 0} onClick={() => go(at - 1)}>
                  Back
                </Button>
                <Button hint="N" disabled={at >= steps.length - 1} onClick={() => go(at + 1)}>
                  Next
                </Button>
              </>
            )}
            <Button look="quiet" hint="R" disabled={!last} onClick={redo}>
              Redo
            </Button>
          </CaptureBar>
          {TAKEN_AT_REST.includes(run.method) && (
            <Check checked={byItself} onChange={setByItself} className="mt-2">
              hands-free: say that the probe is in place; it is taken once it rests, with a tone, and the run
              goes on
            </Check>
          )}
          {run.method === 'drain' && <DrainNote parts={parts} run={run} />}
        </>
      )}
    </section>
  );
}

/** A condition may be captured several times: that shows what pushing the probe in again is worth. */
function Repeats({
  point,
  steps,
  at,
  rawUnit,
  spanCounts,
}: {
  point: PointOf;
  /** Between the conditions so far, counts. */
  spanCounts: number;
  steps: number;
  at: number;
  rawUnit: string;
}) {
  const counts = point.captures.map((one) => one.rawCounts);
  const spread = Math.max(...counts) - Math.min(...counts);
  const next = at < steps - 1 ? ' Then go on.' : '';
  const isApart = spanCounts > 0 && spread > REPEATS_FRAC * spanCounts;
  return (
    <p className="mt-1 text-[14px] text-soft">
      Captured {counts.length} {counts.length === 1 ? 'time' : 'times'}
      {counts.length > 1 && (
        <>
          ,{' '}
          <span className="num">
            {rawUnit === 'counts' ? formatNumber(spread) : formatNumber(spread, 1)} {rawUnit}
          </span>{' '}
          between the lowest and the highest
        </>
      )}
      .{' '}
      {isApart
        ? 'That is too far apart for one condition: one of them has to go.'
        : counts.length < WANTED_REPEATS
          ? `Take it out, wipe it, put it back and capture again: three times shows the spread.${next}`
          : `That shows the spread.${next}`}
    </p>
  );
}

/** What is really to be added now, from what the container weighed last. */
function MixingAdvice({ run, at }: { run: Run; at: number }) {
  const plan = run.method === 'mixing' ? planMixing(mixingInputs(run.inputs)) : null;
  const before = run.points[at - 1]?.typed;
  if (!plan?.ok || before === null || before === undefined || run.points[at]) return null;
  const add = waterToAdd(plan.value, at, before);
  const planned = plan.value.steps[at]?.addG ?? 0;
  return Math.abs(add - planned) < 1 ? null : (
    <p className="mt-1 text-[14px]">
      By what it weighed last, add <b className="num font-semibold">{formatNumber(add)} g</b> in place of{' '}
      <span className="num">{formatNumber(planned)} g</span>: the rest evaporated, or was poured before.
    </p>
  );
}
