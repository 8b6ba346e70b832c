/** Workings of a dose: the run time for a volume, and what a run gives. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { unevenOf, volumeOf, type DoseFit } from './doseFit.ts';

const SOURCE =
  'Weighted least squares through your trials, volume on run time, weighed over how uneven the pump may be (Draper & Smith 1998; Patterson & Thompson 1971).';

const fitInputs = (fit: DoseFit) => ({
  factor: input('factor', fit.secondsPerMl, 's/ml', 4),
  tube: input('tube constant', fit.tubeS, 's', 2),
});

/** Run time for a volume, s. */
export function workRunTime(fit: DoseFit, volumeMl: number): Worked {
  const run = step(
    {
      name: 'run time',
      unit: 's',
      decimals: 1,
      formula: '{volume} × {factor} + {tube}',
      inputs: { volume: input('volume', volumeMl, 'ml'), ...fitInputs(fit) },
    },
    ({ volume, factor, tube }) => volume * factor + tube,
  );
  const { plusMinusMl } = volumeOf(fit, run.value);
  return worked(`Run time for ${volumeMl} ml`, [run], {
    source: SOURCE,
    note: `The tube fills first, so half the time is not half the water. A single run gives ${volumeMl} ± ${plusMinusMl.toFixed(0)} ml, 95 times in 100: ${evenText(fit)}`,
    wouldChange: 'Another tube, lift, tank level or battery voltage: measure again then.',
  });
}

/** What the ± stands on. */
const evenText = (fit: DoseFit): string =>
  `no pump gives the same twice, and this one strays by about ${(100 * unevenOf(fit)).toFixed(1)} % of a dose as far as ${fit.trials} trials and what is usual tell.`;

/** What a run of so many seconds gives, ml. */
export function workVolume(fit: DoseFit, runS: number): Worked {
  const volume = step(
    {
      name: 'volume',
      unit: 'ml',
      formula: '({run} − {tube}) ÷ {factor}, not below 0',
      inputs: { run: input('run time', runS, 's', 1), ...fitInputs(fit) },
    },
    ({ run, tube, factor }) => Math.max(0, (run - tube) / factor),
  );
  return worked(`Volume of ${runS} s`, [volume], {
    source: SOURCE,
    note: `± ${volumeOf(fit, runS).plusMinusMl.toFixed(0)} ml for a single run, 95 times in 100: ${evenText(fit)}`,
    wouldChange: 'Another tube, lift, tank level or battery voltage: measure again then.',
  });
}
