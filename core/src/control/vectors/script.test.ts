/** Laws that hold on any day told beforehand. The days are rich: the vectors, which are cut from them, meet every reason fifty times. */
import { expect, test } from 'vitest';
import { runScript, type Call } from './runScript.ts';
import { scriptOf, type Script } from './script.ts';

const DAYS = process.env.TROWEL_LONG ? 5000 : 80;
const LONG_MS = 1_800_000;

/** What a person would see: starts, stops, locks, refusals, each with its time, reason and volume. Why an idle line holds may be told later by a rare caller. */
const seen = (calls: readonly Call[]) =>
  calls.flatMap(({ timeS, step }) =>
    step.events.filter(({ kind }) => kind !== 'held').map((event) => ({ ...event, timeS })),
  );

/** A count set back to what a rare caller saw last cannot be noticed by it; so here it never is. */
const steady = (script: Script): Script => ({
  ...script,
  moments: script.moments.map((one) => ({ ...one, backS: 0 })),
});

const never = () => false;
const always = () => true;

test(
  `decisions rest on times: called each second, or only when something happens or was asked for (${DAYS} days)`,
  () => {
    for (let seed = 1; seed <= DAYS; seed += 1) {
      const script = steady(scriptOf(seed));
      expect({ seed, seen: seen(runScript(script, never)) }).toEqual({
        seed,
        seen: seen(runScript(script, always)),
      });
    }
  },
  LONG_MS,
);

test(
  'a call more at any second changes nothing, over days long enough for a fallback',
  () => {
    for (let seed = 1; seed <= DAYS / 20; seed += 1) {
      const script = steady(scriptOf(seed, 200_000));
      const some = seen(runScript(script, (timeS) => (timeS * 7919 + seed) % 1013 === 0));
      expect({ seed, seen: some }).toEqual({ seed, seen: seen(runScript(script, never)) });
    }
  },
  LONG_MS,
);
