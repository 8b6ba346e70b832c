import { useState } from 'react';
import {
  isBeyondTrials,
  isFarBeyondTrials,
  runTimeFor,
  smallestDose,
  volumeOf,
  type DoseFit,
} from '@plain-trowel/core/dosing/doseFit';
import { workRunTime, workVolume } from '@plain-trowel/core/dosing/workDose';
import { useMeasuredFlow as takeFlow } from '@plain-trowel/core/garden/edits/trials';
import { broughtIn } from '@plain-trowel/core/garden/bind/contradictions';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatFlow, formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { Button } from '../../../ui/Button.tsx';
import { NumberField } from '../../../ui/NumberField.tsx';
import { contradictionText } from '../../../words/contradictionText.ts';

/** Nothing is said of what lies far from every trial. */
const farBeyondText = (fit: DoseFit): string =>
  `Nothing can be said of that: you tried ${formatNumber(fit.shortestS, 1)} to ${formatNumber(fit.longestS, 1)} s. Measure a run near it.`;

/** What a dose must mind beside its run time. */
function mind(
  fit: DoseFit,
  runS: number,
  volumeMl: number,
  smallest: number | null,
  line: WaterLine,
): string {
  if (smallest !== null && volumeMl < smallest)
    return `: smaller than ${formatVolume(smallest)}, so it will not come out within a fifth`;
  if (runS > line.maxRunS) return `: longer than the maximum run of ${line.maxRunS} s, which ends it before`;
  return isBeyondTrials(fit, runS) ? ', beyond what was tried' : '';
}

const DOSES_ML = [25, 50, 100, 200, 300, 500, 1000] as const;

/** Both ways between volume and run time, a table of usual doses, the smallest that makes sense, and the flow taken over by the rules. */
export function DoseCalculator({ line, fit }: { line: WaterLine; fit: DoseFit }) {
  const { garden: now, commit } = useGarden();
  const [volumeMl, setVolume] = useState(100);
  const [runS, setRun] = useState(10);
  const smallest = smallestDose(fit);
  const flow = 1 / fit.secondsPerMl;
  const isTaken =
    Math.abs(line.flowMlPerS - flow) < 0.006 && Math.abs(line.tubeS - Math.max(0, fit.tubeS)) < 0.06;
  const [clash] = broughtIn(now, takeFlow(now, line.id, fit));
  return (
    <section aria-label="Doses" className="mt-4 border-t border-rule pt-3">
      <h2>Doses</h2>
      <p className="text-[14.5px]">
        {smallest === null ? (
          'This line is too uneven: no dose would come out within 20 %. Check the tube and measure again.'
        ) : (
          <>
            The smallest sensible dose is <b className="num font-semibold">{formatVolume(smallest)}</b>: less
            than that does not come out within a fifth.
          </>
        )}
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-3">
        <div className="w-[130px]">
          <NumberField
            label="For a volume of"
            unit="ml"
            value={volumeMl}
            least={1}
            most={100_000}
            whole={false}
            decimals={0}
            onKeep={setVolume}
          />
        </div>
        <p className="pb-1.5">
          {isFarBeyondTrials(fit, runTimeFor(fit, volumeMl)) ? (
            farBeyondText(fit)
          ) : (
            <>
              run <WorkedNumber id="dose-run" worked={workRunTime(fit, volumeMl)} />
              {mind(fit, runTimeFor(fit, volumeMl), volumeMl, smallest, line)}
            </>
          )}
        </p>
        <div className="w-[130px]">
          <NumberField
            label="A run of"
            unit="s"
            value={runS}
            least={0.1}
            most={3600}
            whole={false}
            onKeep={setRun}
          />
        </div>
        <p className="pb-1.5">
          {isFarBeyondTrials(fit, runS) ? (
            farBeyondText(fit)
          ) : (
            <>
              gives <WorkedNumber id="dose-volume" worked={workVolume(fit, runS)} />
            </>
          )}
        </p>
      </div>
      <div className="mt-3 overflow-x-auto">
        <table className="w-auto">
          <thead>
            <tr>
              <th className="text-right">Dose, ml</th>
              <th className="pl-6 text-right">Run, s</th>
              <th className="pl-6 text-right">A single run gives, ml</th>
              <th className="pl-6">Mind</th>
            </tr>
          </thead>
          <tbody>
            {DOSES_ML.map((dose) => {
              const time = runTimeFor(fit, dose);
              const { plusMinusMl } = volumeOf(fit, time);
              return (
                <tr key={dose}>
                  <td className="num text-right">{formatNumber(dose)}</td>
                  <td className="num pl-6 text-right">{formatNumber(time, 1)}</td>
                  <td className="num pl-6 text-right">
                    {isFarBeyondTrials(fit, time)
                      ? '–'
                      : `${formatNumber(dose)} ± ${formatNumber(plusMinusMl)}`}
                  </td>
                  <td className="pl-6 text-[13.5px] text-soft">
                    {isFarBeyondTrials(fit, time)
                      ? 'too far from what was tried to say'
                      : smallest !== null && dose < smallest
                        ? 'too small to be even'
                        : isBeyondTrials(fit, time)
                          ? 'beyond what was tried'
                          : time > line.maxRunS
                            ? `longer than the maximum run of ${line.maxRunS} s`
                            : 'tried'}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="mt-3 text-[14.5px] leading-10">
        The rules use <span className="num">{formatFlow(line.flowMlPerS)}</span>; you measured{' '}
        <span className="num">{formatFlow(flow)}</span>.{' '}
        {isTaken ? (
          'They are the same.'
        ) : (
          <Button
            onClick={() =>
              void commit(
                `flow of ${line.name}`,
                (garden) => ({ garden: takeFlow(garden, line.id, fit) }),
                `${line.name} is reckoned with ${formatFlow(flow)} and ${formatNumber(fit.tubeS, 1)} s for the tube now.`,
              )
            }
          >
            Use the measured flow
          </Button>
        )}
        {!isTaken && clash && (
          <span role="alert" className="mt-1 block text-[14px] text-handle">
            With it nothing waters by itself until this is solved: {contradictionText(clash)}
          </span>
        )}
      </p>
    </section>
  );
}
