/**
 * Makes engine/vectors: traces of made-up days, chosen so that every kind of program and every reason of the engine stands in at least fifty of them.
 * Run by `npm run vectors`; the files are checked by `core/src/control/vectors/vectorFile.test.ts`.
 */
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { REASONS, type Reason } from '@plain-trowel/core/control/contract/reasons';
import {
  NOT_THE_ENGINES,
  reasonsIn,
  runScript,
  type Call,
} from '@plain-trowel/core/control/vectors/runScript';
import { scriptOf, type Script } from '@plain-trowel/core/control/vectors/script';
import { traceOf, VECTORS_FORMAT, VECTORS_VERSION } from '@plain-trowel/core/control/vectors/vectorFile';

const FOLDER = 'engine/vectors';
const EACH = 50;
const LEAST_TRACES = 400;
const LONGEST = 400;
const LEAST_CALLS = 30;
const SEEDS = Number(process.env.SEEDS ?? 10_000);
const LONG_DAY_S = 200_000;
const A_FILE = 50;

type Candidate = {
  readonly name: string;
  readonly script: Script;
  readonly calls: readonly Call[];
  readonly reasons: ReadonlySet<Reason>;
};

const wanted = REASONS.filter((reason) => !NOT_THE_ENGINES.includes(reason));
const have = new Map<Reason, number>(wanted.map((reason) => [reason, 0]));
const chosen: Candidate[] = [];
const missing = () => wanted.filter((reason) => (have.get(reason) ?? 0) < EACH);

function consider(name: string, script: Script): void {
  const all = runScript(script, () => false);
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
  const isRare = [...reasons].some((reason) => lacks.has(reason) && (have.get(reason) ?? 0) < EACH / 2);
  if (!isRare && helps < 2 && lacks.size > 10) return;
  chosen.push({ name, script, calls, reasons });
  for (const reason of reasons) have.set(reason, (have.get(reason) ?? 0) + 1);
}

for (let seed = 1; seed <= SEEDS && missing().length > 0; seed += 1) {
  consider(`day ${seed}`, scriptOf(seed));
  consider(`days ${seed}`, scriptOf(seed, LONG_DAY_S));
}
for (let seed = SEEDS; chosen.length < LEAST_TRACES; seed += 1) {
  const script = scriptOf(seed);
  chosen.push({
    name: `day ${seed}`,
    script,
    calls: runScript(script, () => false).slice(0, LEAST_CALLS),
    reasons: new Set(),
  });
}
const left = missing();
if (left.length > 0)
  throw new Error(
    `too rare in ${SEEDS} seeds: ${left.map((one) => `${one} ${have.get(one) ?? 0}`).join(', ')}`,
  );

/** Of each trace only as much as is needed for fifty of each reason, taken where it costs least. */
const lengths = new Map<Candidate, number>();
const firstOf = new Map<Candidate, ReadonlyMap<Reason, number>>();
for (const one of chosen) {
  const first = new Map<Reason, number>();
  for (const [at, call] of one.calls.entries())
    for (const reason of reasonsIn([call])) if (!first.has(reason)) first.set(reason, at);
  firstOf.set(one, first);
}
const rarestFirst = [...wanted].sort((a, b) => (have.get(a) ?? 0) - (have.get(b) ?? 0));
for (const reason of rarestFirst) {
  const cheapest = chosen
    .flatMap((one) => {
      const at = firstOf.get(one)?.get(reason);
      if (at === undefined) return [];
      const length = Math.max(lengths.get(one) ?? 0, at + 2);
      return [{ one, length, cost: length - (lengths.get(one) ?? 0) }];
    })
    .sort((a, b) => a.cost - b.cost)
    .slice(0, EACH);
  for (const { one, length } of cheapest) lengths.set(one, length);
}
for (const one of chosen) if (lengths.size < LEAST_TRACES && !lengths.has(one)) lengths.set(one, LEAST_CALLS);
const kept = [...lengths].map(([one, length]) => ({ ...one, calls: one.calls.slice(0, length) }));

mkdirSync(FOLDER, { recursive: true });
for (const old of readdirSync(FOLDER)) rmSync(`${FOLDER}/${old}`);
for (let from = 0; from < kept.length; from += A_FILE) {
  const traces = kept
    .slice(from, from + A_FILE)
    .map(({ name, script, calls }) => traceOf(name, script.config, calls));
  const rows = traces.map((trace) => JSON.stringify(trace)).join(',\n');
  writeFileSync(
    `${FOLDER}/${String(from / A_FILE + 1).padStart(2, '0')}.json`,
    `{"format":"${VECTORS_FORMAT}","version":"${VECTORS_VERSION}","traces":[\n${rows}\n]}\n`,
  );
}
const calls = kept.reduce((sum, one) => sum + one.calls.length, 0);
console.log(
  `${kept.length} traces, ${calls} calls; the rarest reason stands in ${Math.min(...have.values())} of them`,
);
