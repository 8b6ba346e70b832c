/** Outputs that hold a state: permit contacts in series with somebody else's timer, and grow lights. */
import { z } from '../../quantity/schema.ts';
import { savedConditions } from '../../control/conditions/conditions.ts';
import { minute } from '../../control/programs/settings.ts';
import { id, name } from '../../quantity/fields.ts';
import { around } from './waterSchema.ts';

/** By the clock the minute of the day; by the sun minutes after its rise or setting, negative before. */
const edge = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('clock'), minute }),
  z.strictObject({ by: z.literal('sunrise'), minute: z.int().min(-720).max(720) }),
  z.strictObject({ by: z.literal('sunset'), minute: z.int().min(-720).max(720) }),
]);
export type SavedEdge = z.infer<typeof edge>;

const lightCounts = z.number().min(-1e6).max(1e6);
const rule = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('permit'),
    /** What the contact does without current: so it is wired, and so it stands where nobody can tell. */
    atRest: z.enum(['forbids', 'permits']),
  }),
  z.strictObject({
    kind: z.literal('light'),
    from: edge,
    to: edge,
    cell: z.strictObject({ darkBelow: lightCounts, brightAbove: lightCounts }).nullable(),
  }),
]);

const minutes = (most: number) => z.int().min(1).max(most);

export const contact = z.strictObject({
  id,
  name,
  boardId: id,
  plotId: id,
  /** Decides by itself; false: at rest. */
  automatic: z.boolean(),
  rule,
  conditions: savedConditions,
  /** Channels of its surroundings that a person has chosen; null: by place. */
  around,
  /** At a stretch and in a rolling day; null: no limit. */
  mostOnMin: minutes(10_080).nullable(),
  dayMaxMin: minutes(1440).nullable(),
  /** Between two stretches. */
  leastOffMin: minutes(1440),
  staleAfterS: z.int().min(5).max(86_400),
});
export type Contact = z.infer<typeof contact>;
export type ContactRule = Contact['rule'];
