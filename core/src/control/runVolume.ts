import { input, step, worked, type Worked } from '../quantity/worked.ts';

/** What one run of a pump gives at most, ml: maximum run × flow. The filling of the tube is left out, so the true volume is a little less. */
export function runVolume(line: { readonly maxRunS: number; readonly flowMlPerS: number }): Worked {
  const volume = step(
    {
      name: 'largest volume of one run',
      unit: 'ml',
      formula: '{run} × {flow}',
      inputs: {
        run: input('maximum run', line.maxRunS, 's'),
        flow: input('pump gives', line.flowMlPerS, 'ml/s', 1),
      },
    },
    ({ run, flow }) => run * flow,
  );
  return worked('One run at most', [volume], {
    source: 'Run time × flow, as typed in by you.',
    note: 'Measure the flow into a jug: with lift, tube and battery it differs from what the pump’s box says.',
    wouldChange: 'A longer maximum run, another pump, a longer tube, an emptier tank.',
  });
}
