import type { Outcome } from '@plain-trowel/core/calibration/run';
import { meanOf } from '@plain-trowel/core/calibration/runPoint';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';

/** The mixtures so far, driest at the foot, each rung as long as it is wet: a number that does not go the way of the others stands out. */
export function MixingLadder({ run, outcome }: { run: Run; outcome: Outcome }) {
  const rungs = run.points
    .flatMap((point) => {
      const known = outcome.known.get(point.id);
      return known?.ok && point.used
        ? [{ id: point.id, percent: known.value.percent, counts: meanOf(point) }]
        : [];
    })
    .sort((a, b) => b.percent - a.percent);
  if (rungs.length < 2) return null;
  const [wettest, driest] = [rungs[0], rungs.at(-1)];
  const falls = (wettest?.counts ?? 0) < (driest?.counts ?? 0);
  const most = Math.max(...rungs.map((one) => one.percent), 1);
  const isAstray = (at: number) => {
    const [rung, drier] = [rungs[at], rungs[at + 1]];
    return Boolean(rung && drier && rung.counts < drier.counts !== falls);
  };
  return (
    <section aria-label="Mixtures so far" className="mt-3 max-w-[560px]">
      <ol className="flex flex-col gap-1">
        {rungs.map((rung, at) => (
          <li key={rung.id} className="grid grid-cols-[1fr_150px] items-center gap-3">
            <span className="block h-[12px] border-x-[3px] border-ink bg-paper-2">
              <span
                className={`block h-full ${isAstray(at) ? 'bg-handle' : 'bg-ink'}`}
                style={{ width: `${(100 * Math.max(0, rung.percent)) / most}%` }}
              />
            </span>
            <span className="num text-[13.5px]">
              {formatNumber(rung.percent, 1)} {percentUnit(outcome.percentKind)},{' '}
              {formatCounts(Math.round(rung.counts))}
              {isAstray(at) && <b className="block font-semibold text-handle">out of order</b>}
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-[13.5px] text-soft">
        Wettest on top. {falls ? 'The numbers should fall' : 'The numbers should rise'} from rung to rung
        upward.
      </p>
    </section>
  );
}
