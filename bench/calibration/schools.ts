/** The schools of calibrating, each carried out on a made-up probe, with what its percent really is. */
import { methodOf, usualInputs, type Inputs } from '../../core/src/calibration/methods.ts';
import type { MethodId } from '../../core/src/calibration/conditions.ts';
import type { Run, RunPoint } from '../../core/src/calibration/runPoint.ts';
import type { Dice } from '../../standins/src/random.ts';
import { captureIn, trueCounts, type Probe } from './worlds.ts';

export type Trial = {
  readonly run: Run;
  /** What the percent really is at a wetness. */
  readonly truth: (wetness: number) => number;
  /** Wetness between which readings are taken. */
  readonly from: number;
  readonly to: number;
  /** The probe stays where it is between the points and the reading. */
  readonly stays?: true;
};

const rounded = (value: number, step: number) => Math.round(value / step) * step;

/** The soil's temperature at a time, °C from its mean. */
export const warmthIn = (probe: Probe, chance: Dice): number =>
  chance.between(-probe.world.swingC, probe.world.swingC);

/** @param wetness of each condition in the order of the run; @param of what is typed with it, for the density that it had */
function pointsAt(
  probe: Probe,
  chance: Dice,
  wetness: readonly number[],
  of: (wetness: number, at: number) => Partial<RunPoint>,
  { inserted = true, atOnce = false }: { readonly inserted?: boolean; readonly atOnce?: boolean } = {},
): RunPoint[] {
  const together = warmthIn(probe, chance);
  return wetness.map((wet, at) => {
    const times = inserted ? 1 + Math.floor(chance.between(0, 3)) : 1;
    const warmerC = atOnce ? together : warmthIn(probe, chance);
    const captures = Array.from({ length: times }, (_, time) =>
      captureIn(probe, wet, chance, {
        inserted,
        warmerC,
        before: wetness[at - 1] ?? null,
        minute: 10 * at + 3 * time,
      }),
    );
    return {
      id: `p${at}`,
      condition: 'air',
      typed: null,
      felt: null,
      temperatureC: probe.world.thermometer ? 20 + warmerC : null,
      used: true,
      captures,
      ...of(wet, at),
    };
  });
}

const inputsOf = (method: MethodId, more: Inputs = {}): Inputs => ({
  ...usualInputs(methodOf(method)),
  ...more,
});
const asRun = (method: MethodId, points: readonly RunPoint[], inputs: Inputs = inputsOf(method)): Run => ({
  method,
  points,
  inputs,
  convert: null,
});
/** Span percent is defined by the straight line between its true references. */
const spanTruth = (probe: Probe) => (wetness: number) =>
  (100 * (probe.dryCounts - trueCounts(probe, wetness))) / (probe.dryCounts - probe.wetCounts);
/** A soil that was pressed more or less: it reads a little wetter or drier than it is meant to. */
const pressed = (probe: Probe, chance: Dice, wetness: number) =>
  wetness * (1 + 0.4 * probe.world.density * chance.bell());

export const SCHOOLS: Readonly<Record<string, (probe: Probe, chance: Dice) => Trial>> = {
  'air and water': (probe, chance) => ({
    run: asRun(
      'air-water',
      pointsAt(probe, chance, [0, 1], (_, at) => ({ condition: at === 0 ? 'air' : 'water' }), {
        atOnce: true,
      }),
    ),
    truth: spanTruth(probe),
    from: 0,
    to: 1,
  }),
  'your soil, dry and soaked': (probe, chance) => ({
    run: asRun(
      'dry-soaked',
      pointsAt(probe, chance, [0, pressed(probe, chance, 1)], (_, at) => ({
        condition: at === 0 ? 'dry soil' : 'soaked soil',
      })),
    ),
    truth: spanTruth(probe),
    from: 0,
    to: 1,
  }),
  'factory curve, checked': (drawn, chance) => {
    // Nearly straight, as such probes are; its sheet is off by what it promises, ± 3 %.
    const probe = { ...drawn, bend: 0 };
    const off = 1.5 * chance.bell();
    const gain = 1 + 0.02 * chance.bell();
    const inputs = inputsOf('factory', {
      lowCounts: probe.dryCounts,
      lowPercent: 0,
      highCounts: probe.wetCounts,
      highPercent: 60,
      sheetSigma: 3,
    });
    const points = pointsAt(probe, chance, [0.2, 0.7], (wet) => ({
      condition: 'known content',
      typed: 60 * gain * wet + off + chance.bell(),
    }));
    return {
      run: asRun('factory', points, inputs),
      truth: (wet) => 60 * gain * wet + off,
      from: 0.1,
      to: 0.9,
    };
  },
  'dry, just right, soaked': (probe, chance) => {
    const right = chance.between(0.35, 0.65);
    const wetness = [0, pressed(probe, chance, right), pressed(probe, chance, 1)];
    const points = pointsAt(probe, chance, wetness, (_, at) => ({
      condition: (['dry soil', 'just right', 'soaked soil'] as const)[at] ?? 'dry soil',
    }));
    const middle = trueCounts(probe, right);
    return {
      run: asRun('dry-right-soaked', points),
      // By definition straight between its three references.
      truth: (wetness) => {
        const raw = trueCounts(probe, wetness);
        const [a, b, low] = wetness < right ? [probe.dryCounts, middle, 0] : [middle, probe.wetCounts, 50];
        return low + (50 * (raw - a)) / (b - a);
      },
      from: 0,
      to: 1,
    };
  },
  'mixing series': (probe, chance) => {
    const volumeMl = 1000;
    const drySoilG = chance.between(900, 1300);
    const trueVolume = volumeMl * (1 + 0.02 * chance.bell());
    const start = chance.between(0.02, 0.1);
    const sampleDryG = 100;
    const inputs = inputsOf('mixing', {
      volumeMl,
      emptyG: 85,
      sampleWetG: rounded(sampleDryG * (1 + start), 1),
      sampleDryG,
      soilG: rounded(drySoilG * (1 + start), 1),
    });
    const wettest = (0.85 * (1 - drySoilG / trueVolume / 2.65) * trueVolume) / trueVolume;
    const first = (start * drySoilG) / trueVolume;
    const contents = [0, 1, 2, 3, 4].map((at) => first + (at / 4) * (wettest - first) * 0.98);
    const points = pointsAt(
      probe,
      chance,
      contents.map((content) => content / 0.6),
      (_, at) => ({
        condition: 'mixed soil',
        // The soil does not come down to quite the same line each time.
        typed: rounded(
          85 + drySoilG + (contents[at] ?? 0) * trueVolume * (1 + probe.world.density * chance.bell()),
          1,
        ),
      }),
    );
    return {
      run: asRun('mixing', points, inputs),
      truth: (wetness) => 100 * 0.6 * wetness,
      from: (contents[0] ?? 0) / 0.6,
      to: (contents[4] ?? 0) / 0.6,
    };
  },
  'pot weighing': (probe, chance) => {
    const volumeMl = 4000;
    const trueVolume = volumeMl * (1 + 0.05 * chance.bell());
    const plantG = chance.between(0, 300);
    const inputs = inputsOf('pot', { tareG: 400, plantG, drySoilG: 3000, volumeMl, scaleStepG: 5 });
    const truePlant = plantG * (1 + 0.2 * chance.bell());
    const contents = Array.from({ length: 14 }, (_, at) => 0.42 - (0.32 * at) / 13);
    const points = pointsAt(
      probe,
      chance,
      contents.map((content) => content / 0.6),
      (_, at) => ({
        condition: 'pot on the scale',
        typed: rounded(400 + truePlant + 3000 + (contents[at] ?? 0) * trueVolume, 5),
      }),
      { inserted: false },
    );
    return {
      run: asRun('pot', points, inputs),
      truth: (wet) => 60 * wet,
      from: 0.1 / 0.6,
      to: 0.42 / 0.6,
      stays: true,
    };
  },
  'against a meter, percent': (probe, chance) => {
    const contents = Array.from({ length: 12 }, () => chance.between(0.08, 0.42));
    const points = pointsAt(
      probe,
      chance,
      contents.map((content) => content / 0.6),
      (_, at) => ({ condition: 'beside the meter', typed: 100 * (contents[at] ?? 0) + 2 * chance.bell() }),
      { inserted: false },
    );
    return {
      run: asRun('meter', points, { dial: 0 }),
      stays: true,
      truth: (wet) => 60 * wet,
      from: Math.min(...contents) / 0.6,
      to: Math.max(...contents) / 0.6,
    };
  },
  'against a dial of 1 to 10': (probe, chance) => {
    const shares = Array.from({ length: 12 }, () => chance.between(0.05, 0.95));
    const points = pointsAt(
      probe,
      chance,
      shares,
      (wet) => ({ condition: 'beside the meter', typed: rounded(1 + 9 * wet, 1) }),
      { inserted: false },
    );
    return {
      run: asRun('meter', points, { dial: 1 }),
      stays: true,
      truth: (wet) => 100 * wet,
      from: Math.min(...shares),
      to: Math.max(...shares),
    };
  },
  'drain test': (probe, chance) => {
    const points = pointsAt(
      probe,
      chance,
      [0.6, 0.2],
      (_, at) => ({
        condition: at === 0 ? 'drained a day' : 'plant hangs its leaves',
      }),
      { inserted: false },
    );
    return {
      run: asRun('drain', points),
      stays: true,
      truth: (wet) => (100 * (wet - 0.2)) / 0.4,
      from: 0.2,
      to: 0.6,
    };
  },
};
