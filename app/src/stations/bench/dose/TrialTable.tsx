import { suspectOf, usedTrials } from '@plain-trowel/core/garden/bind/lineDose';
import { volumeOf, type DoseFit } from '@plain-trowel/core/dosing/doseFit';
import { removeTrial, setTrialUsed } from '@plain-trowel/core/garden/edits/trials';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { Check } from '../../../ui/Check.tsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

/** Every trial with what the line says of it. One that does not go with the others is pointed at, never left out by itself. */
export function TrialTable({ line, fit }: { line: WaterLine; fit: DoseFit | null }) {
  const { garden, commit } = useGarden();
  if (line.trials.length === 0) return null;
  const used = usedTrials(line);
  const suspect = suspectOf(line);
  const suspectId = suspect && used[suspect.at]?.id;
  return (
    <>
      {suspect && (
        <p className="mt-3 border-l-[3px] border-chaff pl-3 text-[14.5px]">
          <b className="font-semibold">Look again.</b> The run of {used[suspect.at]?.runS} s is{' '}
          {formatVolume(Math.abs(suspect.offMl))} {suspect.offMl > 0 ? 'above' : 'below'} what the others say.
          Measure it again, or leave it out.
        </p>
      )}
      <Scroll label="Trials" className="mt-3">
        <table>
          <thead>
            <tr>
              <th className="text-right">Run, s</th>
              <th className="text-right">Came out, ml</th>
              <th className="text-right">Off the line, ml</th>
              <th className="pl-4">When</th>
              <th>Counts</th>
              <th>Remove</th>
            </tr>
          </thead>
          <tbody>
            {line.trials.map((trial) => (
              <tr key={trial.id} className={trial.used ? '' : 'text-soft line-through'}>
                <td className="num text-right">{formatNumber(trial.runS, 1)}</td>
                <td className="num text-right">{formatNumber(trial.volumeMl)}</td>
                <td className={`num text-right ${trial.id === suspectId ? 'font-semibold text-handle' : ''}`}>
                  {fit ? formatNumber(trial.volumeMl - volumeOf(fit, trial.runS).volumeMl, 1) : '–'}
                </td>
                <td className="pl-4">
                  <span className="num">{dayTime(Date.parse(trial.takenAt), garden.timeZone)}</span>
                  {trial.simulated && <span className="text-soft"> (stand-in)</span>}
                </td>
                <td>
                  <Check
                    checked={trial.used}
                    onChange={(now) =>
                      void commit('leave a trial out', (before) => ({
                        garden: setTrialUsed(before, line.id, trial.id, now),
                      }))
                    }
                  >
                    <span className="sr-only">Use the trial of {trial.runS} s</span>
                  </Check>
                </td>
                <td>
                  <button
                    type="button"
                    className="press underline underline-offset-4"
                    onClick={() =>
                      void commit(
                        'remove a trial',
                        (before) => ({ garden: removeTrial(before, line.id, trial.id) }),
                        'The trial was removed.',
                      )
                    }
                  >
                    Remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </>
  );
}
