/** Workings of a captured reference, and of the distance that two references must keep. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { LEAST_SPAN_IN_NOISE, type Finding } from './checks.ts';

type Captured = {
  readonly condition: string;
  readonly rawCounts: number;
  readonly spreadCounts: number;
  readonly readings: number;
  readonly windowS: number;
};

const windowOf = (captured: Captured) => ({
  readings: input('the readings', captured.readings, ''),
  window: input('the window', captured.windowS, 's', 1),
});

/** The reference itself: the middle of the window that was captured, raw counts. */
export function workReference(captured: Captured): Worked {
  const median = step(
    {
      name: 'median',
      unit: 'counts',
      decimals: Number.isInteger(captured.rawCounts) ? 0 : 1,
      formula: 'median of {readings} within {window}',
      inputs: windowOf(captured),
    },
    () => captured.rawCounts,
  );
  return worked(`Reference: ${captured.condition}`, [median], {
    source: 'Median of the last seconds before the capture: one wild line does not move it.',
    note: 'A reference is never edited; capturing again makes a new calibration version.',
    wouldChange: 'Capturing it again, when the value stands still.',
  });
}

/** A raw value that a person typed in place of a capture. */
export function workTyped(condition: string, counts: number): Worked {
  const number = step(
    {
      name: 'as typed',
      unit: 'counts',
      formula: '{typed}',
      inputs: { typed: input('the number', counts, 'counts') },
    },
    ({ typed }) => typed,
  );
  return worked(`Reference: ${condition}`, [number], {
    source: 'A person typed it: no reading of the probe stands behind it.',
    note: 'It holds for one board, one supply and one probe; what it means in water nobody knows.',
    wouldChange: 'Typing another number, or capturing what the probe reads.',
  });
}

/** How far the captured readings lay about their median, drift included, raw counts. */
export function workSpread(captured: Captured): Worked {
  const spread = step(
    {
      name: 'spread',
      unit: 'counts',
      decimals: 1,
      formula: '1.4826 × median distance of {readings} from their median',
      inputs: windowOf(captured),
    },
    () => captured.spreadCounts,
  );
  return worked(`Spread: ${captured.condition}`, [spread], {
    source: 'Robust standard deviation about the median (Rousseeuw & Croux 1993).',
    note: 'Drift inside the window counts, so a reference taken too early shows a large spread.',
    wouldChange: 'Waiting until the value stands still, a calmer supply.',
  });
}

/** The least distance of two references with this noise, raw counts; for references that were refused as too close. */
export function workNeededSpan(issue: Extract<Finding, { kind: 'span-too-small' }>): Worked {
  const needed = step(
    {
      name: 'least distance',
      unit: 'counts',
      decimals: 1,
      formula: '{times} × {noise}',
      inputs: {
        times: input('times the noise', LEAST_SPAN_IN_NOISE, ''),
        noise: input('larger noise of the two', issue.neededCounts / LEAST_SPAN_IN_NOISE, 'counts', 1),
      },
    },
    ({ times, noise }) => times * noise,
  );
  return worked('Least distance of two references', [needed], {
    source: 'Below ten times the noise each percent would be noise.',
    note: `The two lie ${Math.round(issue.spanCounts)} counts apart.`,
    wouldChange: 'A calmer signal, or conditions that differ more.',
  });
}
