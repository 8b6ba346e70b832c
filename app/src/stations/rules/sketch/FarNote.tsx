import { Link } from 'react-router';
import { byId } from '@plain-trowel/core/quantity/byId';
import { formatDuration, formatVolume } from '@plain-trowel/core/quantity/format';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';

/** What this board goes by and another one reads, and what happens when it hears no more of it; nothing where all is its own. */
export function FarNote({ plan }: { readonly plan: BoardPlan }) {
  const { garden } = useGarden();
  const far = plan.inputs.filter((one) => one.far);
  if (far.length === 0) return null;
  return (
    <section aria-label="Read by another board" className="mt-3 max-w-[76ch] border-l-[3px] border-ink pl-3">
      <p>
        {far
          .map(({ label, far: there }) => `${label} is read by ${there?.board ?? 'another board'}`)
          .join('; ')}
        . The gateway passes it on with each answer, as long as it is younger than a minute; the guards are
        this board’s own.
      </p>
      <ul className="mt-1 text-[14.5px]">
        {plan.lines.map(({ id, name }) => {
          const line = byId(garden.waterLines, id);
          return (
            line && (
              <li key={id}>
                {name}: when it has heard nothing for {formatDuration(line.staleAfterS)}, it{' '}
                {line.fallbackMl > 0
                  ? `gives ${formatVolume(line.fallbackMl)} at its intervals, as set for a faulty probe`
                  : 'rests'}
                . <Link to={sheetPath(garden.id, 'rules', 'limits', line.plotId)}>Rules, Limits</Link>
              </li>
            )
          );
        })}
      </ul>
    </section>
  );
}
