/** Traces for engines in other languages: those of the files, and days that stand in no file. */
import { contactScriptOf, runContactScript } from '../../control/vectors/contactScript.ts';
import { contactAnswerOf, contactCallsOf, contactVectorFile } from '../../control/vectors/contactVectors.ts';
import { runScript } from '../../control/vectors/runScript.ts';
import { scriptOf } from '../../control/vectors/script.ts';
import { answerOf, callsOf, vectorFile } from '../../control/vectors/vectorFile.ts';
import { contactProofOf, proofOf } from './proofText.ts';

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
