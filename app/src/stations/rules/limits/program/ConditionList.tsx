import type { SavedConditions } from '@plain-trowel/core/control/conditions/conditions';
import type { LineField } from '@plain-trowel/core/control/programs/contradiction';
import { CONDITION_ROWS, ConditionRow, type Conditioned } from './ConditionRow.tsx';
import { Hours } from './Hours.tsx';

const KEYS = Object.keys(CONDITION_ROWS) as readonly (keyof SavedConditions)[];

/** All conditions of a water line or a contact. One that nothing in the garden measures would hold it forever: it stands in red, and nothing runs. */
export function ConditionList({
  about,
  problem,
  keep,
}: {
  readonly about: Conditioned;
  readonly problem: (field: LineField) => string | null;
  readonly keep: (label: string, change: Partial<Pick<Conditioned, 'conditions' | 'around'>>) => void;
}) {
  const { conditions } = about;
  const set = (change: Partial<SavedConditions>) =>
    keep('conditions', { conditions: { ...conditions, ...change } });
  return (
    <ul className="mt-1">
      {KEYS.map((key) => (
        <ConditionRow
          key={key}
          about={about}
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
