/** Sabotage: every way to spoil a wiring, applied to wirings that are in order; what the checks find, and whether they name the right part. */
import { checkWiring } from '../../core/src/wiring/checks/all.ts';
import { readCircuit } from '../../core/src/wiring/circuit.ts';
import type { Finding } from '../../core/src/wiring/finding.ts';
import type { Netlist } from '../../core/src/wiring/netlist.ts';
import { OPERATORS } from './sabotage.ts';
import { catalogue } from './sketchpad.ts';
import { randomOf, soundWiring } from './sound.ts';

const SETTING = { radioOn: true, tapWater: false } as const;

/** What tells that something is wrong; what cannot be told, and what is only to be done at the bench, does not. */
const seriousOf = (netlist: Netlist): readonly Finding[] =>
  checkWiring(readCircuit(netlist, catalogue), SETTING).findings.filter((one) => one.severity !== 'note');

type Score = {
  readonly tried: number;
  readonly found: number;
  readonly named: number;
  readonly missed: readonly number[];
  readonly misnamed: readonly number[];
};

/** Accused: seeds of sound wirings with a finding, or that could not be told. */
export function sabotage(seeds: number): {
  readonly accused: readonly number[];
  readonly scores: ReadonlyMap<string, Score>;
} {
  const accused: number[] = [];
  const scores = new Map<
    string,
    { tried: number; found: number; named: number; missed: number[]; misnamed: number[] }
  >();
  for (let seed = 1; seed <= seeds; seed += 1) {
    const { netlist } = soundWiring(seed);
    if (seriousOf(netlist).length > 0) accused.push(seed);
    for (const [name, operator] of Object.entries(OPERATORS)) {
      const spoilt = operator(netlist, randomOf(seed * 7 + 3));
      if (!spoilt) continue;
      const score = scores.get(name) ?? { tried: 0, found: 0, named: 0, missed: [], misnamed: [] };
      scores.set(name, score);
      const findings = seriousOf(spoilt.netlist).filter((one) => one.severity !== 'unknown');
      score.tried += 1;
      if (findings.length === 0) score.missed.push(seed);
      else score.found += 1;
      const isNamed = findings.some((one) => one.ends.some((end) => spoilt.parts.includes(end.part)));
      if (isNamed) score.named += 1;
      else if (findings.length > 0) score.misnamed.push(seed);
    }
  }
  return { accused, scores };
}

export function benchSabotage(seeds = 300): void {
  const { accused, scores } = sabotage(seeds);
  const sum = (of: (score: Score) => number) => [...scores.values()].reduce((all, one) => all + of(one), 0);
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  console.log(`Sabotage of ${seeds} sound wirings by ${scores.size} operators`);
  for (const [name, score] of scores)
    if (score.found < score.tried || score.named < score.tried)
      console.log(
        `  ${name}: ${score.found} of ${score.tried} found, right part in ${score.named}; missed ${score.missed.slice(0, 6).join(' ')} misnamed ${score.misnamed.slice(0, 4).join(' ')}`,
      );
  console.log(
    `  found ${percent(sum((one) => one.found) / sum((one) => one.tried))} of ${sum((one) => one.tried)} (asked: 98 %)`,
  );
  console.log(
    `  right part named in ${percent(sum((one) => one.named) / sum((one) => one.tried))} (asked: 95 %)`,
  );
  console.log(`  sound wirings accused: ${accused.length} of ${seeds} (asked: 0)`);
}
