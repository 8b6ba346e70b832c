import { id } from '../../quantity/fields.ts';
import { z } from '../../quantity/schema.ts';
import { found } from './contradiction.ts';
import type { ProgramRecord } from './record.ts';

/** Runs as long as its leader's last run did, times a share; takes every n-th of them. */
export type Follower = {
  readonly kind: 'follower';
  /** Place in the engine's list of lines. */
  readonly leader: number;
  readonly sharePercent: number;
  readonly everyNth: number;
};

const settings = z.strictObject({
  kind: z.literal('follower'),
  leaderId: id,
  sharePercent: z.int().min(10).max(300),
  everyNth: z.int().min(1).max(7),
});

/** A run that a follower owes is forgotten after this, s. */
const OWED_S = 3600;

export const follower = {
  settings,
  begin: ({ leaderId }) =>
    leaderId === null ? null : { kind: 'follower', leaderId, sharePercent: 100, everyNth: 1 },
  doseMl: () => null,
  contradictions: ({ leaderId }, { programOf }) => {
    const leads = programOf(leaderId);
    return [
      ...found(leads === null, 'leader-missing', 'leader', 'program'),
      ...found(leads === 'follower', 'leader-follows', 'leader', 'program'),
      ...found(leads === 'alert-only', 'leader-never-runs', 'leader', 'program'),
    ];
  },
  leaderId: ({ leaderId }) => leaderId,
  bind: ({ leaderId, ...rest }, _, placeOf) => ({ ...rest, leader: placeOf(leaderId) }),
  usesProbe: false,
  wants: (_, { owes }) => (owes ? { runS: owes.runS, reason: 'follows', slot: null } : 'leader-rests'),
  /** It sees its leader finish. */
  notice: ({ leader: at, everyNth, sharePercent }, { seenRuns, owes: owed }, { input }, lines) => {
    const leader = lines[at];
    let owes = owed;
    if (leader && leader.runs !== seenRuns) {
      const runS = Math.trunc((leader.lastRanS * sharePercent) / 100);
      if (leader.runs % everyNth === 0 && runS > 0) owes = { runS, untilS: input.nowS + OWED_S };
    }
    return {
      seenRuns: leader ? leader.runs : seenRuns,
      owes: owes && input.nowS < owes.untilS ? owes : null,
    };
  },
  wake: (_, { owes }) => [owes?.untilS ?? null],
  began: () => ({ owes: null }),
} as const satisfies ProgramRecord<z.infer<typeof settings>, Follower>;
