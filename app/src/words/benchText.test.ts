/** Sentences of the bench: every kind has one, with its number and the next thing to do. */
import { describe, expect, test } from 'vitest';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import { TEST_STEPS } from '@plain-trowel/core/garden/document/probeSchema';
import { PROBE_KINDS } from '@plain-trowel/core/quantity/probeKind';
import type { Settling } from '@plain-trowel/core/settling/settlingWatch';
import { busIssueText } from './busText.ts';
import { comparisonText, lineIssueText, sunText, threePointText, trimIssueText } from './correctionText.ts';
import { lineFaultText, streamFaultText } from './faultText.ts';
import { answerText, stepWords } from './firstTestText.ts';
import { intervalText, verdictText, waitText } from './settlingText.ts';

const time = () => '12:00:05';

describe('faults of a stream', () => {
  const faults: [StreamFault, string, RegExp][] = [
    [{ kind: 'open', sinceMs: 5 }, 'Open', /Unplugged at 12:00:05/],
    [{ kind: 'open', sinceMs: null }, 'Open', /nothing is connected/],
    [{ kind: 'short', sinceMs: 5 }, 'Shorted', /Since 12:00:05/],
    [{ kind: 'short', sinceMs: null }, 'Shorted', /shorted to ground/],
    [{ kind: 'clipped', end: 'top', shareFrac: 0.12 }, 'Cut off', /12 in 100 readings/],
    [{ kind: 'stuck', forS: 95, counts: 2103 }, 'Stuck', /2\u202f103 for 1 min 35 s/],
    [{ kind: 'hum', periodS: 3.7, amplitudeCounts: 44.4 }, 'Interference', /± 44 counts each 3\.7 s/],
    [{ kind: 'leap', atMs: 5, byCounts: -400 }, 'Sudden offset', /leapt by 400 counts/],
    [{ kind: 'jumping', leaps: 4, byCounts: 300 }, 'Jumping', /4 leaps/],
    [{ kind: 'beyond-wet', byFrac: 0.17 }, 'Wetter than water', /17 % of the span/],
    [{ kind: 'daily-wave', amplitudeCounts: 40, days: 3 }, 'Daily wave', /temperature, not water/],
  ];
  test.each(faults)('%o', (fault, name, says) => {
    const words = streamFaultText(fault, time);
    expect(words.name).toBe(name);
    expect(words.says).toMatch(says);
    expect(words.next).toMatch(/\.$/);
  });
  test('of its lines: the likely speed where it is known, causes in order where nothing comes', () => {
    expect(lineFaultText({ kind: 'garbage', shareFrac: 1, likelyBaud: 57_600 }).next).toContain(
      '57\u202f600 baud',
    );
    expect(lineFaultText({ kind: 'garbage', shareFrac: 1, likelyBaud: null }).next).toContain(
      'Look up the speed',
    );
    for (const before of ['never', 'lines', 'bytes'] as const)
      expect(lineFaultText({ kind: 'silence', forS: 65, before }).says).toContain('No line for 1 min 5 s');
    expect(lineFaultText({ kind: 'silence', forS: 65, before: 'never' }).next).toMatch(/^In this order/);
  });
});

describe('settling', () => {
  const settling: Settling = {
    verdict: 'settling',
    end: { counts: 1512, low: 1498.4, high: 1530.4 },
    left: { likelyS: 40, atMostS: 130 },
    now: null,
    driftCountsPerMin: -12.3,
    noiseCounts: 4,
    toleranceCounts: 27,
    beliefFurther: 1,
    watchedS: 10,
    readings: 20,
    spikes: 0,
  };
  test('each verdict says what to do with the value', () => {
    expect(verdictText(settling)).toMatch(/value taken now is wrong/);
    expect(verdictText({ ...settling, end: null })).toMatch(/^Too early/);
    expect(verdictText({ ...settling, left: { likelyS: 0, atMostS: 60 } })).toMatch(/not ruled out/);
    expect(verdictText({ ...settling, verdict: 'steady' })).toMatch(/can be trusted/);
    expect(verdictText({ ...settling, verdict: 'drifting' })).toMatch(/−12\.3 counts a minute/);
    expect(verdictText({ ...settling, verdict: 'disturbed' })).toMatch(/Leave it alone/);
    expect(verdictText({ ...settling, verdict: 'watching' })).toMatch(/few more readings/);
  });
  test('a wait is named with its longest, where that differs', () => {
    expect(waitText({ likelyS: 40, atMostS: 130 })).toBe('about 40 s, 2 min 10 s at most');
    expect(waitText({ likelyS: 40, atMostS: 44 })).toBe('about 40 s');
    expect(waitText({ likelyS: 40, atMostS: Infinity })).toBe('about 40 s');
    expect(waitText({ likelyS: Infinity, atMostS: Infinity })).toBe('longer than can be said');
    expect(waitText({ likelyS: 0, atMostS: 0 })).toBe('none');
    expect(waitText({ likelyS: 0, atMostS: 60 })).toBe('perhaps none, 1 min at most');
    expect(intervalText({ counts: 1512, low: 1498.4, high: 1530.4 })).toBe('1\u202f498 to 1\u202f530');
  });
});

test('every kind of probe has a first test of three steps in words', () => {
  for (const kind of PROBE_KINDS)
    for (const step of TEST_STEPS) {
      const words = stepWords(step, kind);
      expect(words.doThis).toMatch(/\.$/);
      expect(words.shouldSee).toMatch(/\.$/);
    }
  expect(stepWords('water', 'capacitive stick').doThis).toContain('no further');
  expect(answerText({ kind: 'waiting', movedFrac: 0.034 })).toContain('3.4 % of the span');
  expect(answerText({ kind: 'at-rail', end: 'top' })).not.toBe(
    answerText({ kind: 'at-rail', end: 'bottom' }),
  );
  for (const kind of ['seen', 'air-first'] as const) expect(answerText({ kind })).toMatch(/\.$/);
  expect(answerText({ kind: 'wait-for-rest', movedFrac: 1 })).toContain('stopped moving');
});

test('everything that can go wrong on the bus has a sentence with its next step', () => {
  expect(busIssueText({ kind: 'no-answer' })).toContain('A and B exchanged');
  expect(busIssueText({ kind: 'too-short', got: 3, wanted: 9 })).toContain('3 of 9 bytes');
  expect(busIssueText({ kind: 'wrong-crc' })).toContain('two probes with one address');
  expect(busIssueText({ kind: 'echo' })).toContain('hears itself');
  expect(busIssueText({ kind: 'wrong-address', got: 2, wanted: 1 })).toContain(
    'Address 2 answered in place of 1',
  );
  expect(busIssueText({ kind: 'wrong-function', got: 4 })).toContain('function 4');
  expect(busIssueText({ kind: 'exception', code: 2 })).toContain('no such register');
  expect(busIssueText({ kind: 'exception', code: 77 })).toContain('reason 77');
  expect(busIssueText({ kind: 'not-confirmed' })).toContain('Read it again');
  expect(busIssueText({ kind: 'port-gone' })).toContain('unplugged');
});

test('corrections that cannot be say why, by how much, and what to do', () => {
  expect(lineIssueText({ kind: 'too-close', apart: 5, needed: 10 })).toMatch(/5\.0 °C apart.*10 °C/);
  expect(lineIssueText({ kind: 'odd-gain', gain: 2 })).toContain('2.00');
  expect(trimIssueText({ kind: 'far-off', multiplier: 16.25 })).toContain('16.25');
  expect(trimIssueText({ kind: 'not-positive' })).toContain('battery');
  expect(threePointText({ kind: 'too-close', apartC: 3, neededC: 5 })).toContain('3.0 °C');
  expect(threePointText({ kind: 'not-falling' })).toContain('exchanged');
  expect(threePointText({ kind: 'not-positive' })).toContain('above zero');
  expect(comparisonText({ kind: 'too-few' })).toContain('Two');
  expect(comparisonText({ kind: 'too-short', hours: 1.25, neededHours: 4 })).toMatch(/1\.[23] hours/);
  expect(sunText({ kind: 'too-fast', ratePerHour: 20, atMs: 0 }, '09:10')).toContain('20 °C an hour');
  expect(sunText({ kind: 'too-far-above', aboveC: 22, atMs: 0 }, '09:10')).toContain('22 °C above the soil');
});
