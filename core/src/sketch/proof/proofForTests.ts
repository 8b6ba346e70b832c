/** Traces for engines in other languages: those of the files, and days that stand in no file. */
import { contactScriptOf, runContactScript } from '../../control/vectors/contactScript.ts';
import { contactAnswerOf, contactCallsOf, contactVectorFile } from '../../control/vectors/contactVectors.ts';
import { runScript } from '../../control/vectors/runScript.ts';
import { scriptOf } from '../../control/vectors/script.ts';
import { answerOf, callsOf, vectorFile } from '../../control/vectors/vectorFile.ts';
import { DEFAULT_SIGNALS, type SignalFacts } from '../../control/signals.ts';
import { Dice } from '../../control/vectors/script.ts';
import { contactProofOf, proofOf, signalProofOf } from './proofText.ts';

export type NamedProof = { readonly name: string; readonly proof: ReturnType<typeof proofOf> };

/** Those of a file of vectors. @param text of the file */
export function proofsIn(text: string): readonly NamedProof[] {
  const { traces } = vectorFile.parse(JSON.parse(text));
  return traces.map((trace) => {
    const { config, calls } = callsOf(trace);
    return { name: trace.name, proof: proofOf(config, calls) };
  });
}

/** A day that stands in no file, called every second. @param steps calls, about */
export function proofOfDay(seed: number, steps: number): NamedProof {
  const script = { ...scriptOf(900_000 + seed, 3 * steps), endS: steps };
  const calls = runScript(script, () => true).map(({ boot, input, step }) => ({
    boot,
    input,
    asked: answerOf(step),
  }));
  return { name: `day ${seed}`, proof: proofOf(script.config, calls) };
}

/** Those of a file of vectors of contacts. @param text of the file */
export function contactProofsIn(text: string): readonly NamedProof[] {
  const { traces } = contactVectorFile.parse(JSON.parse(text));
  return traces.map((trace) => ({ name: trace.name, proof: contactProofOf(contactCallsOf(trace)) }));
}

/** A day of contacts that stands in no file. @param longestS of the day, s */
export function contactProofOfDay(seed: number, longestS: number): NamedProof {
  const script = contactScriptOf(700_000 + seed, longestS);
  const calls = runContactScript(script).map(({ boot, readings, input, step }) => ({
    boot,
    readings,
    input,
    asked: contactAnswerOf(step),
  }));
  return {
    name: `day ${seed}`,
    proof: contactProofOf({ engine: script.engine, contacts: script.contacts, calls }),
  };
}

/** Plots of every kind, each under rules and limits of its own: what is shown of them. */
export function signalProofs(count: number): readonly NamedProof[] {
  const dice = new Dice(4711);
  const maybe = (least: number, most: number) => (dice.isOne(4) ? null : dice.whole(least, most));
  return Array.from({ length: count }, (_, at) => {
    const rules = DEFAULT_SIGNALS.map((one) => ({ ...one, on: !dice.isOne(5) }));
    for (let turn = 0; turn < 6; turn += 1)
      rules.splice(dice.whole(0, rules.length - 2), 0, ...rules.splice(dice.whole(0, rules.length - 2), 1));
    const limits = {
      dryTenths: dice.whole(100, 500),
      wetTenths: dice.one([1001, dice.whole(500, 1000)]),
      soilLowTenthsC: maybe(0, 100),
      soilHighTenthsC: maybe(200, 400),
      airLowTenthsC: maybe(-50, 50),
      airHighTenthsC: maybe(250, 450),
    };
    const facts = Array.from({ length: 40 }, (): SignalFacts => ({
      isLocked: dice.isOne(8),
      isFaulty: dice.isOne(8),
      isWatering: dice.isOne(6),
      unknown: dice.isOne(5) ? 'stale' : null,
      isTankLow: dice.isOne(8),
      // Now and then exactly on a limit.
      tenths: dice.isOne(5) ? null : dice.one([limits.dryTenths, limits.wetTenths, dice.whole(0, 1000)]),
      soilTenthsC: dice.one([limits.soilLowTenthsC, limits.soilHighTenthsC, maybe(-100, 500)]),
      airTenthsC: dice.one([limits.airLowTenthsC, limits.airHighTenthsC, maybe(-100, 500)]),
      isDark: dice.one([null, true, false]),
    }));
    return { name: `plot ${at}`, proof: signalProofOf(rules, limits, facts) };
  });
}

/** Where an engine first answers differently; null where it never does. @param said its lines, for all traces one after another */
export function firstDifference(traces: readonly NamedProof[], said: readonly string[]): string | null {
  let at = 0;
  for (const { name, proof } of traces)
    for (const [call, asked] of proof.asked.entries()) {
      const answer = said[at]?.trim();
      if (answer !== asked) return `${name}, call ${call}: ${answer} in place of ${asked}`;
      at += 1;
    }
  return said.length === at ? null : `${said.length} answers to ${at} calls`;
}
