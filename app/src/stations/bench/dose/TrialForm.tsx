import { MOST } from '@plain-trowel/core/quantity/bounds';
import { AddButton } from '../../../ui/AddButton.tsx';
import { useTyped } from '../../../ui/useTyped.ts';
import { useState } from 'react';
import { USUAL_JUG_STEP_ML } from '@plain-trowel/core/dosing/doseFit';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import { NumberField } from '../../../ui/NumberField.tsx';
import { addTrial, setTrialNote } from '@plain-trowel/core/garden/edits/trials';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { jugAfter } from '@plain-trowel/standins/pump/jug';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { RealPumpRun } from './RealPumpRun.tsx';

const number = (typed: string, least: number, most: number): number | null => {
  const read = readNumber(typed.trim().replace(',', '.'));
  return read.kind === 'number' && read.value >= least && read.value <= most ? read.value : null;
};

/** One measured run: how long, and what came out. A stand-in pump can be run for it. */
export function TrialForm({ line }: { line: WaterLine }) {
  const { commit } = useGarden();
  const hands = useLive(({ source }) => source?.hands ?? null);
  const [run, setRun] = useState('8');
  const [volume, setVolume] = useState('');
  const [jug, setJug] = useState<{ readonly runS: number; readonly ml: number } | null>(null);
  const runS = number(run, 0.1, 3600);
  const volumeMl = number(volume, 0, 1e6);
  const keep = () => {
    if (runS === null || volumeMl === null) return;
    const isJug = jug !== null && jug.runS === runS;
    void commit(`trial of ${line.name}`, (garden) => ({
      garden: addTrial(
        garden,
        line.id,
        { runS, volumeMl, takenAt: new Date().toISOString(), simulated: isJug },
        Math.random,
      ),
    })).then((saved) => {
      if (!saved) return;
      setVolume('');
      setJug(null);
    });
  };
  return (
    <section aria-label="A trial" className="mt-3 border-t border-rule pt-3">
      <form
        className="flex flex-wrap items-end gap-x-5 gap-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Field
          label="It ran for"
          unit="s"
          className="w-[130px]"
          error={run !== '' && runS === null ? 'From 0.1 to 3600 s.' : undefined}
        >
          {(props) => (
            <input
              {...props}
              className="field num w-full text-right"
              inputMode="decimal"
              value={run}
              onChange={(event) => setRun(event.target.value)}
            />
          )}
        </Field>
        <Field
          label="Into the jug came"
          unit="ml or g"
          className="w-[190px]"
          error={volume !== '' && volumeMl === null ? 'From 0 to 1,000,000 ml.' : undefined}
        >
          {(props) => (
            <input
              {...props}
              className="field num w-full text-right"
              inputMode="decimal"
              value={volume}
              onChange={(event) => setVolume(event.target.value)}
            />
          )}
        </Field>
        <div className="w-[170px]">
          <NumberField
            label={line.jugStepMl === null ? 'Jug’s marks, a guess' : 'Jug’s marks, each'}
            unit="ml"
            value={line.jugStepMl ?? USUAL_JUG_STEP_ML}
            least={0}
            most={1000}
            whole={false}
            decimals={0}
            onKeep={(jugStepMl) =>
              void commit(`jug of ${line.name}`, (garden) => ({
                garden: setWaterLine(garden, line.id, { jugStepMl }),
              }))
            }
          />
        </div>
        <AddButton
          count={line.trials.length}
          most={MOST.trials}
          what="trials"
          type="submit"
          look="primary"
          disabled={runS === null || volumeMl === null}
        >
          Keep this trial
        </AddButton>
        {hands && (
          <Button
            disabled={runS === null}
            onClick={() =>
              runS !== null &&
              setJug({ runS, ml: jugAfter(line.id, line.flowMlPerS, runS, line.trials.length) })
            }
          >
            Run the stand-in pump
          </Button>
        )}
        <RealPumpRun line={line} runS={runS} onRan={(ranS) => setRun(String(ranS))} />
      </form>
      {jug && (
        <p className="mt-2" role="status">
          It ran for <span className="num">{jug.runS} s</span>. The stand-in’s jug shows{' '}
          <b className="num font-semibold">{jug.ml} ml</b>: type it in, as you would by a real jug.
        </p>
      )}
      <NoteField line={line} />
    </section>
  );
}

/** Whatever else belongs to the trials, in words. */
function NoteField({ line }: { line: WaterLine }) {
  const { commit } = useGarden();
  const { typed, type, handOver } = useTyped();
  const keep = () => {
    const note = typed?.trim();
    handOver();
    if (note === undefined || note === line.trialNote) return;
    void commit(`how ${line.name} was measured`, (garden) => ({
      garden: setTrialNote(garden, line.id, note),
    }));
  };
  return (
    <Field label="Anything else about the measuring" className="mt-2 max-w-[520px]">
      {(props) => (
        <input
          {...props}
          value={typed ?? line.trialNote}
          maxLength={400}
          onChange={(event) => type(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep();
          }}
        />
      )}
    </Field>
  );
}
