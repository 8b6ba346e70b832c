import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import type { SavedConditions } from '@plain-trowel/core/control/conditions/conditions';
import { CONDITION_ROWS, ConditionRow } from './ConditionRow.tsx';
import { Hours } from './Hours.tsx';
import { useLine } from './useLine.ts';

const KEYS = Object.keys(CONDITION_ROWS) as readonly (keyof SavedConditions)[];

/** What must be so besides. A condition that nothing in the garden measures would hold the line forever: it stands in red, and nothing waters. */
export function ConditionFields({ line }: { line: WaterLine }) {
  const { problem, keep } = useLine(line);
  const { conditions } = line;
  const set = (change: Partial<SavedConditions>) =>
    keep('conditions', { conditions: { ...conditions, ...change } });
  return (
    <ul className="mt-1">
      {KEYS.map((key) => (
        <ConditionRow
          key={key}
          about={line}
          of={key}
          problem={problem(CONDITION_ROWS[key].field)}
          set={set}
          choose={(around) => keep('conditions', { around })}
        >
          {key === 'hours' && conditions.hours && (
            <Hours hours={conditions.hours} onChange={(hours) => set({ hours })} />
          )}
        </ConditionRow>
      ))}
    </ul>
  );
}
