import { clsx } from 'clsx';
import { useRef, useState } from 'react';
import type { Loss, LossKind } from '@plain-trowel/core/wiring/losses';
import { Button } from '../../../ui/Button.tsx';
import { Progress } from '../../../ui/Progress.tsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { runJob, type Job } from '../../../workers/files.ts';
import type { usePlan } from '../usePlan.ts';
import { endName } from './ends.ts';

const KIND_WORDS: Readonly<Record<LossKind, string>> = {
  danger: 'danger',
  unnoticed: 'goes unnoticed',
  noticed: 'is noticed',
  nothing: 'no effect',
};

/** What happens when any one wire comes off, worked out in a worker when it is asked for. */
export function LossTable({ plan }: { plan: ReturnType<typeof usePlan> }) {
  const { garden, circuit, wiring } = plan;
  const [found, setFound] = useState<{ readonly of: typeof wiring; readonly losses: readonly Loss[] } | null>(
    null,
  );
  const [isWorking, setIsWorking] = useState(false);
  const [done, setDone] = useState(0);
  const job = useRef<Job<Loss[]> | null>(null);
  const isStale = found !== null && found.of !== wiring;
  const work = async () => {
    setDone(0);
    setIsWorking(true);
    const running = runJob(async (jobs, telling) => await jobs.wireLosses(garden, telling(setDone)));
    job.current = running;
    const losses = await running.result.catch(() => undefined);
    setIsWorking(false);
    if (losses === undefined)
      showToast({
        tone: 'problem',
        text: 'This could not be worked out. Load the page again and try once more.',
      });
    else if (losses) setFound({ of: wiring, losses });
  };
  const count = (kind: LossKind) => found?.losses.filter((one) => one.kind === kind).length ?? 0;
  const number = (id: string) => wiring.wires.findIndex((wire) => wire.id === id) + 1;
  return (
    <>
      <h2 className="mt-6 border-t border-ink pt-3">If one wire comes off</h2>
      <p className="mb-2 max-w-[70ch] text-soft">
        The wiring is solved without each wire in turn, with the program as it is: what then runs, stops or is
        read wrong, and whether the program notices.
      </p>
      {isWorking ? (
        <Progress
          label="Taking one wire after the other off"
          done={done}
          onCancel={() => job.current?.cancel()}
        />
      ) : (
        <Button onClick={() => void work()}>{found ? 'Work it out again' : 'Work it out'}</Button>
      )}
      {found && !isWorking && (
        <>
          <p aria-live="polite" className="my-2 font-semibold">
            {isStale
              ? 'The wiring has changed since; work it out again.'
              : `Of ${found.losses.length} wires ${count('danger')} are a danger when they come off, ${count('unnoticed')} go unnoticed.`}
          </p>
          {!isStale && (
            <Scroll label="If one wire comes off">
              <table>
                <thead>
                  <tr>
                    <th className="text-right">No.</th>
                    <th>Wire</th>
                    <th>When it comes off</th>
                    <th>What happens</th>
                  </tr>
                </thead>
                <tbody>
                  {found.losses.map(({ wire, kind, effects }) => (
                    <tr key={wire.id}>
                      <td className="num text-right">{number(wire.id)}</td>
                      <td>
                        {endName(circuit, wire.from)} – {endName(circuit, wire.to)}
                      </td>
                      <td
                        className={clsx(
                          'whitespace-nowrap',
                          kind === 'danger' && 'font-semibold text-handle',
                        )}
                      >
                        {KIND_WORDS[kind]}
                      </td>
                      <td>{effects.map((one) => one.says).join(' ')}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Scroll>
          )}
        </>
      )}
    </>
  );
}
