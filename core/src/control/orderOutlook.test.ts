import fc from 'fast-check';
import { expect, test } from 'vitest';
import { bootEngine, stepEngine } from './engine/engine.ts';
import { configOf, GUARDS, inputAt, LINE } from './engine/engineForTests.ts';
import { orderOutlook } from './orderOutlook.ts';

/** Ten ml a second, no tube. */
const flow = { flowMlPerMin: 600, tubeMs: 0 };
const guards = { maxRunS: 20, dailyMaxMl: 500 };

test.each([
  [100, 0, { comesMl: 100, runS: 10, cut: null }],
  [5000, 0, { comesMl: 200, runS: 20, cut: 'max-run' }],
  [200, 0, { comesMl: 200, runS: 20, cut: null }],
  [100, 450, { comesMl: 50, runS: 5, cut: 'daily-max' }],
  [5000, 450, { comesMl: 50, runS: 5, cut: 'daily-max' }],
  [100, 500, { comesMl: 0, runS: 0, cut: 'daily-max' }],
  [100, 620, { comesMl: 0, runS: 0, cut: 'daily-max' }],
] as const)('%d ml with %d counted already: %j', (ml, counted, expected) =>
  expect(orderOutlook(ml, flow, guards, counted)).toEqual(expected),
);

test('from an empty tank, one that nobody knows, or beside a line that runs, nothing comes', () => {
  for (const tank of ['tank-low', 'tank-unknown', 'other-line-runs'] as const)
    expect(orderOutlook(100, flow, guards, 0, tank)).toEqual({ comesMl: 0, runS: 0, cut: tank });
});

test('the tube must fill first', () => {
  expect(orderOutlook(100, { ...flow, tubeMs: 3000 }, guards, 0)).toEqual({
    comesMl: 100,
    runS: 13,
    cut: null,
  });
});

test('the engine gives what was said beforehand', () => {
  const any = fc.record({
    flowMlPerMin: fc.integer({ min: 30, max: 3000 }),
    tubeMs: fc.integer({ min: 0, max: 6000 }),
    maxRunS: fc.integer({ min: 1, max: 90 }),
    dailyMaxMl: fc.integer({ min: 20, max: 3000 }),
    volumeMl: fc.integer({ min: 1, max: 3000 }),
    had: fc.integer({ min: 0, max: 3000 }),
  });
  fc.assert(
    fc.property(any, ({ flowMlPerMin, tubeMs, maxRunS, dailyMaxMl, volumeMl, had }) => {
      const config = configOf({ flowMlPerMin, tubeMs, guards: { ...GUARDS, maxRunS, dailyMaxMl } });
      let state = bootEngine(config, [
        { hoursMl: [had], locked: false, noRise: 0, pulses: 0, watchTenths: null },
      ]);
      let ran = 0;
      let came = 0;
      for (let nowS = 1; nowS <= 100; nowS += 1) {
        const orders = nowS === 1 ? [{ kind: 'water', line: 0, volumeMl } as const] : [];
        const step = stepEngine(state, inputAt(nowS, { orders }), config);
        state = step.state;
        for (const event of step.events)
          if (event.kind === 'stopped') [ran, came] = [event.ranS, event.volumeMl];
      }
      const said = orderOutlook(volumeMl, { ...LINE, flowMlPerMin, tubeMs }, { maxRunS, dailyMaxMl }, had);
      expect([ran, came]).toEqual([said.runS, said.comesMl]);
    }),
    { seed: 5, numRuns: 500 },
  );
});
