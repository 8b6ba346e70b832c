/** Chooses, of made-up days, a set in which every reason stands often enough, and cuts each as short as that allows. */
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { Reason } from '@plain-trowel/core/control/contract/reasons';

const LONGEST = 400;
const LEAST_CALLS = 30;
const A_FILE = 50;

export type Day<Call> = { readonly name: string; readonly calls: readonly Call[] };

type Candidate<Call> = Day<Call> & { readonly reasons: ReadonlySet<Reason> };

/**
 * @param wanted reasons that must stand in `each` days or more
 * @param daysOf days of a seed
 * @param leastTraces how many there must be at least
 */
export function chooseTraces<Call>(
  wanted: readonly Reason[],
  each: number,
  leastTraces: number,
  seeds: number,
  daysOf: (seed: number) => readonly Day<Call>[],
  reasonsIn: (calls: readonly Call[]) => ReadonlySet<Reason>,
): readonly Day<Call>[] {
  const have = new Map<Reason, number>(wanted.map((reason) => [reason, 0]));
  const chosen: Candidate<Call>[] = [];
  const missing = () => wanted.filter((reason) => (have.get(reason) ?? 0) < each);
  const consider = ({ name, calls: all }: Day<Call>) => {
    const lacks = new Set(missing());
    // As long as it takes to its last reason that is still wanted, and no longer.
    const firstSeen = [...reasonsIn(all)]
      .filter((reason) => lacks.has(reason))
      .map((reason) => all.findIndex((call) => reasonsIn([call]).has(reason)));
    const within = firstSeen.filter((at) => at < LONGEST);
    const calls = all.slice(0, Math.max(LEAST_CALLS, ...within.map((at) => at + 3)));
    const reasons = reasonsIn(calls);
    const helps = [...reasons].filter((reason) => lacks.has(reason)).length;
    if (helps === 0) return;
    // While much is missing, only days that bring in several things at once, or something rare.
    const isRare = [...reasons].some((reason) => lacks.has(reason) && (have.get(reason) ?? 0) < each / 2);
    if (!isRare && helps < 2 && lacks.size > 10) return;
    chosen.push({ name, calls, reasons });
    for (const reason of reasons) have.set(reason, (have.get(reason) ?? 0) + 1);
  };
  for (let seed = 1; seed <= seeds && missing().length > 0; seed += 1) daysOf(seed).forEach(consider);
  for (let seed = seeds; chosen.length < leastTraces; seed += 1) {
    const [first] = daysOf(seed);
    if (first) chosen.push({ ...first, calls: first.calls.slice(0, LEAST_CALLS), reasons: new Set() });
  }
  const left = missing();
  if (left.length > 0)
    throw new Error(
      `too rare in ${seeds} seeds: ${left.map((one) => `${one} ${have.get(one) ?? 0}`).join(', ')}`,
    );
  return cutShort(chosen, have, each, leastTraces, reasonsIn);
}

/** Of each day only as much as is needed for enough of each reason, taken where it costs least. */
function cutShort<Call>(
  chosen: readonly Candidate<Call>[],
  have: ReadonlyMap<Reason, number>,
  each: number,
  leastTraces: number,
  reasonsIn: (calls: readonly Call[]) => ReadonlySet<Reason>,
): readonly Day<Call>[] {
  const lengths = new Map<Candidate<Call>, number>();
  const firstOf = new Map<Candidate<Call>, ReadonlyMap<Reason, number>>();
  for (const one of chosen) {
    const first = new Map<Reason, number>();
    for (const [at, call] of one.calls.entries())
      for (const reason of reasonsIn([call])) if (!first.has(reason)) first.set(reason, at);
    firstOf.set(one, first);
  }
  const rarestFirst = [...have].sort(([, a], [, b]) => a - b).map(([reason]) => reason);
  for (const reason of rarestFirst) {
    const cheapest = chosen
      .flatMap((one) => {
        const at = firstOf.get(one)?.get(reason);
        if (at === undefined) return [];
        const length = Math.max(lengths.get(one) ?? 0, at + 2);
        return [{ one, length, cost: length - (lengths.get(one) ?? 0) }];
      })
      .sort((a, b) => a.cost - b.cost)
      .slice(0, each);
    for (const { one, length } of cheapest) lengths.set(one, length);
  }
  for (const one of chosen)
    if (lengths.size < leastTraces && !lengths.has(one)) lengths.set(one, LEAST_CALLS);
  return [...lengths].map(([one, length]) => ({ name: one.name, calls: one.calls.slice(0, length) }));
}

/** Writes traces in files of fifty. */
export function writeTraces(
  folder: string,
  format: string,
  version: string | number,
  traces: readonly unknown[],
): void {
  mkdirSync(folder, { recursive: true });
  const frozen = JSON.stringify(version);
  const old = readdirSync(folder);
  if (old.some((name) => readFileSync(`${folder}/${name}`, 'utf8').includes(`"version":${frozen},`)))
    throw new Error(`${folder} holds version ${frozen}, which is frozen. Raise the version first.`);
  for (const name of old) rmSync(`${folder}/${name}`);
  for (let from = 0; from < traces.length; from += A_FILE) {
    const rows = traces
      .slice(from, from + A_FILE)
      .map((trace) => JSON.stringify(trace))
      .join(',\n');
    writeFileSync(
      `${folder}/${String(from / A_FILE + 1).padStart(2, '0')}.json`,
      `{"format":"${format}","version":${JSON.stringify(version)},"traces":[\n${rows}\n]}\n`,
    );
  }
}
