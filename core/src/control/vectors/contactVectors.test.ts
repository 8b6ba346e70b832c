import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { REASON_CODES } from '../codes.ts';
import { contactReasonsIn, contactScriptOf, REASONS_OF_CONTACTS, runContactScript } from './contactScript.ts';
import {
  contactTraceOf,
  contactVectorFile,
  replayContactTrace,
  type ContactTrace,
} from './contactVectors.ts';

const FOLDER = new URL('../../../../engine/contacts/', import.meta.url);
const files = readdirSync(FOLDER).sort();
const tracesIn = (name: string): readonly ContactTrace[] =>
  contactVectorFile.parse(JSON.parse(readFileSync(new URL(name, FOLDER), 'utf8'))).traces;

describe('the vectors of contacts', () => {
  test.each(files)('%s: these contacts answer as is written there', (name) => {
    expect(tracesIn(name).flatMap((trace) => replayContactTrace(trace) ?? [])).toEqual([]);
  });
  test('every reason that a contact can have, and either kind, stands in fifty of them', () => {
    const traces = files.flatMap(tracesIn);
    const within = (holds: (trace: ContactTrace) => boolean) => traces.filter(holds).length;
    const rare = REASONS_OF_CONTACTS.map((reason) => {
      const code = REASON_CODES[reason];
      return [reason, within(({ calls }) => calls.some(({ why }) => why?.includes(code)))] as const;
    });
    expect(rare.filter(([, isIn]) => isIn < 50)).toEqual([]);
    for (const kind of ['permit', 'light'])
      expect(within(({ config }) => config.contacts.some(({ rule }) => rule.kind === kind))).toBeGreaterThan(
        50,
      );
  });
  test('a trace that asks for another answer is told with its place', () => {
    const [first] = tracesIn(files[0] ?? '');
    const [call] = first?.calls ?? [];
    if (!first || !call) throw new Error('no trace');
    expect(replayContactTrace({ ...first, calls: [{ ...call, write: 1, coil: [7] }] })).toContain('at 0 s');
  });
});

test('no contact has a reason that is not on the list, and none is on longer than its guards let it', () => {
  for (let seed = 1; seed <= 60; seed += 1) {
    const script = contactScriptOf(seed);
    const calls = runContactScript(script);
    for (const reason of contactReasonsIn(calls)) expect(REASONS_OF_CONTACTS).toContain(reason);
    for (const [at, { guards, rule }] of script.contacts.entries()) {
      let onS: number | null = null;
      for (const { input, step, boot } of calls) {
        const one = step.state.contacts[at];
        const isOurs = one?.isOn === true && !one.isResting;
        onS = isOurs ? (boot || onS === null ? input.nowS : onS) : null;
        if (onS !== null) expect(input.nowS - onS).toBeLessThan(Math.max(1, guards.mostOnS));
        // Never driven against what it does by itself but where it was decided.
        const restsOn = rule.kind === 'permit' && rule.restPermits;
        expect(step.driven[at]).toBe(one?.isResting === true ? false : one?.isOn !== restsOn);
      }
    }
    expect(replayContactTrace(contactTraceOf('day', script, calls))).toBeNull();
  }
});
