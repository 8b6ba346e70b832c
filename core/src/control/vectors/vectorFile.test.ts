import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { PROGRAM_KINDS } from '../programs/programs.ts';
import { REASONS } from '../contract/reasons.ts';
import { REASON_CODES } from '../codes.ts';
import { NOT_THE_ENGINES } from './runScript.ts';
import { replayTrace, vectorFile, type VectorTrace } from './vectorFile.ts';

const FOLDER = new URL('../../../../engine/vectors/', import.meta.url);
const files = readdirSync(FOLDER).sort();
const traces: readonly VectorTrace[] = files.flatMap(
  (name) => vectorFile.parse(JSON.parse(readFileSync(new URL(name, FOLDER), 'utf8'))).traces,
);

describe('the vectors of the engine', () => {
  test.each(files)('%s: this engine answers as is written there', (name) => {
    const file = vectorFile.parse(JSON.parse(readFileSync(new URL(name, FOLDER), 'utf8')));
    expect(file.traces.flatMap((trace) => replayTrace(trace) ?? [])).toEqual([]);
  });

  test('there are four hundred traces, and every reason and every kind of program stands in fifty of them', () => {
    expect(traces.length).toBeGreaterThanOrEqual(400);
    const within = (holds: (trace: VectorTrace) => boolean) => traces.filter(holds).length;
    const rare = REASONS.filter((reason) => !NOT_THE_ENGINES.includes(reason)).map((reason) => {
      const code = REASON_CODES[reason];
      const isIn = within(({ calls }) =>
        calls.some(({ why, events }) => why?.includes(code) || events?.some((event) => event[3] === code)),
      );
      return [reason, isIn] as const;
    });
    expect(rare.filter(([, isIn]) => isIn < 50)).toEqual([]);
    const kinds = PROGRAM_KINDS.map(
      (kind) =>
        [kind, within(({ config }) => config.lines.some((line) => line.program.kind === kind))] as const,
    );
    expect(kinds.filter(([, isIn]) => isIn < 50)).toEqual([]);
  });

  test('a trace that asks for another answer is told with its place', () => {
    const [first] = traces;
    const [call] = first?.calls ?? [];
    if (!first || !call) throw new Error('no trace');
    const wrong = { ...first, calls: [{ ...call, next: (call.next ?? 0) + 1 }, ...first.calls.slice(1)] };
    expect(replayTrace(wrong)).toContain('at 0 s');
  });
});
