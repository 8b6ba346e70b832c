/** The schools of calibrating: what each one does step by step, what its percent means, and when it is right. */
import { byId } from '../quantity/byId.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import { assumedOf } from './assumptions.ts';
import type { Uncertain } from './convertPercent.ts';
import type { Condition, MethodId } from './conditions.ts';
import type { CurveKind } from './curve.ts';
import { CUT_OFFS } from './cutOffs.ts';
import { percentOfMeter } from './meterPairs.ts';
import { planMixing, weighMixed, type MixedIssue, type MixingInputs, type MixingIssue } from './mixing.ts';
import { percentOfPot, potKind, type PotInputs, type PotIssue } from './potWeighing.ts';

/** Numbers that a run asks for once. A missing one is unknown. */
export type Inputs = Readonly<Record<string, number | undefined>>;
export type InputField = {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly usual?: number;
  readonly optional?: true;
  readonly whole?: true;
  /** Given, one of these is chosen instead of a number typed. */
  readonly choices?: readonly { readonly value: number; readonly label: string }[];
};

export type Step = {
  readonly condition: Condition;
  readonly title: string;
  readonly doing: string;
  /** Percent that the condition stands for by definition; null where it is typed or weighed. */
  readonly percent: number | null;
};

/** What is typed with every capture, beside the raw value. */
export type Typed = {
  readonly label: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  /** Not typed, what is captured stands for itself. */
  readonly optional?: true;
};

export type Method = {
  readonly id: MethodId;
  readonly name: string;
  /** When this one is the right one, in a sentence. */
  readonly when: string;
  readonly takes: string;
  readonly fields: readonly InputField[];
  /** Fixed steps, or the one step that is done again and again. */
  readonly steps: (inputs: Inputs) => readonly Step[];
  readonly openEnded: boolean;
  readonly leastPoints: number;
  readonly typed: Typed | null;
  /** Kinds of curve that make sense; with one there is nothing to choose. */
  readonly curves: readonly CurveKind[];
  readonly percentKind: (inputs: Inputs) => PercentKind;
};

const AIR: Step = {
  condition: 'air',
  title: 'Air',
  doing: 'Hold the probe in air, wiped dry, away from your hand.',
  percent: 0,
};
const WATER: Step = {
  condition: 'water',
  title: 'Water to the line',
  doing:
    'Put it in water up to its printed line and no further. Laptop and board stand away from the jar, where a spill cannot reach them.',
  percent: 100,
};
const DRY: Step = {
  condition: 'dry soil',
  title: 'Dry soil',
  doing:
    'Push it into this plot’s soil, oven-dry and cool again, to the depth it will have. Dry it for a night at 105 °C in a shallow dish that nobody eats from, with the window open; let it cool before you touch it.',
  percent: 0,
};
const SOAKED: Step = {
  condition: 'soaked soil',
  title: 'Soaked soil',
  doing: 'Soak the same soil until it drips, let it drip out, push the probe in to the same depth.',
  percent: 100,
};
const ALL: readonly CurveKind[] = ['line', 'inverse', 'quadratic', 'table', 'monotone'];
const kindOf = (kind: PercentKind) => () => kind;

const METHODS: readonly Method[] = [
  {
    id: 'air-water',
    name: 'Air and water',
    when: 'Five minutes and no soil. Fine for “water me” alerts; it says nothing absolute, and two probes can be compared by it only roughly.',
    takes: '5 minutes',
    fields: [],
    steps: () => [AIR, WATER],
    openEnded: false,
    leastPoints: 2,
    typed: null,
    curves: ['line'],
    percentKind: kindOf('span'),
  },
  {
    id: 'dry-soaked',
    name: 'Your soil, dry and soaked',
    when: 'Better than air and water, because the soil is the plot’s own: 0 and 100 are what this soil can be. Half a day, most of it in the oven.',
    takes: 'half a day',
    fields: [],
    steps: () => [DRY, SOAKED],
    openEnded: false,
    leastPoints: 2,
    typed: null,
    curves: ['line'],
    percentKind: kindOf('span'),
  },
  {
    id: 'dry-right-soaked',
    name: 'Your soil, dry, just right, soaked',
    when: 'When you know what the plant likes: the middle of the scale then is “just right” by definition, and the probe’s bend between is taken up.',
    takes: 'half a day',
    fields: [
      {
        key: 'rightPercent',
        label: '“Just right” shall read',
        unit: '% span',
        least: 10,
        most: 90,
        usual: 50,
      },
    ],
    steps: (inputs) => [
      DRY,
      {
        condition: 'just right',
        title: 'Just right',
        doing: 'Moisten the soil until it is as the plant likes it: crumbling, cool, no water when squeezed.',
        percent: inputs.rightPercent ?? 50,
      },
      SOAKED,
    ],
    openEnded: false,
    leastPoints: 3,
    typed: null,
    curves: ['table', 'monotone'],
    percentKind: kindOf('span'),
  },
  {
    id: 'mixing',
    name: 'Mixing series',
    when: 'For a real water content: soil weighed dry, water added in weighed steps. An evening with a kitchen scale; gives gravimetric and volumetric percent.',
    takes: 'an evening',
    fields: [
      { key: 'volumeMl', label: 'Volume of the container', unit: 'ml', least: 50, most: 20_000 },
      { key: 'emptyG', label: 'Container empty', unit: 'g', least: 0, most: 20_000 },
      { key: 'sampleWetG', label: 'Sample of the soil as it is', unit: 'g', least: 1, most: 5000 },
      { key: 'sampleDryG', label: 'The same sample, oven-dry', unit: 'g', least: 1, most: 5000 },
      { key: 'soilG', label: 'Soil that goes into the container', unit: 'g', least: 10, most: 30_000 },
      { key: 'scaleStepG', label: 'Step of your scale', unit: 'g', least: 0.01, most: 50, usual: 1 },
      { key: 'steps', label: 'Steps', unit: '', least: 3, most: 6, usual: 5, whole: true },
      {
        key: 'grainDensity',
        label: 'Grain density (2.65 mineral, 1.5 peat)',
        unit: 'g/cm³',
        least: 0.8,
        most: 3.5,
        usual: 2.65,
      },
      {
        key: 'byMass',
        label: 'Percent',
        unit: '',
        least: 0,
        most: 1,
        usual: 0,
        choices: [
          { value: 0, label: 'by volume (VWC)' },
          { value: 1, label: 'by mass (GWC)' },
        ],
      },
    ],
    steps: (inputs) => {
      const plan = planMixing(mixingInputs(inputs));
      if (!plan.ok) return [];
      return plan.value.steps.map((step, at) => ({
        condition: 'mixed soil',
        title: `Mixture ${at + 1} of ${plan.value.steps.length}`,
        doing:
          at === 0
            ? `Press the soil down to the line. It should weigh ${Math.round(step.weightG)} g with the container.`
            : `Add ${Math.round(step.addG)} g of water, mix well, press down to the line. It should weigh ${Math.round(step.weightG)} g with the container.`,
        percent: null,
      }));
    },
    openEnded: false,
    leastPoints: 3,
    typed: { label: 'Container now weighs', unit: 'g', least: 1, most: 50_000 },
    curves: ALL,
    percentKind: (inputs) => (inputs.byMass === 1 ? 'gravimetric' : 'volumetric'),
  },
  {
    id: 'pot',
    name: 'Pot weighing',
    when: 'For a planted pot that may not be disturbed: weigh it now and then while it dries from soaked. No digging; holds for that pot.',
    takes: 'some days',
    fields: [
      { key: 'tareG', label: 'Pot, saucer, stake and probe', unit: 'g', least: 0, most: 100_000 },
      { key: 'plantG', label: 'Plant, about', unit: 'g', least: 0, most: 50_000, usual: 0 },
      {
        key: 'drySoilG',
        label: 'Dry soil in it, if known',
        unit: 'g',
        least: 1,
        most: 200_000,
        optional: true,
      },
      {
        key: 'volumeMl',
        label: 'Volume of the soil, if known',
        unit: 'ml',
        least: 10,
        most: 500_000,
        optional: true,
      },
      {
        key: 'soakedG',
        label: 'Whole pot, soaked and drained',
        unit: 'g',
        least: 1,
        most: 300_000,
        optional: true,
      },
      {
        key: 'driestG',
        label: 'Whole pot, as dry as it may get',
        unit: 'g',
        least: 1,
        most: 300_000,
        optional: true,
      },
      { key: 'scaleStepG', label: 'Step of your scale', unit: 'g', least: 0.01, most: 500, usual: 5 },
    ],
    steps: () => [
      {
        condition: 'pot on the scale',
        title: 'Weigh and read',
        doing:
          'Weigh the whole pot, type the weight, capture. Begin soaked; again each half day until it is as dry as the plant allows.',
        percent: null,
      },
    ],
    openEnded: true,
    leastPoints: 4,
    typed: { label: 'Whole pot now weighs', unit: 'g', least: 1, most: 300_000 },
    curves: ALL,
    percentKind: (inputs) => potKind(potInputs(inputs)) ?? 'available',
  },
  {
    id: 'meter',
    name: 'Against a reference meter',
    when: 'With a borrowed meter, or a dial from 1 to 10: paired readings over days. Says first whether the two are in step at all; is no better than the meter.',
    takes: 'a week',
    fields: [
      {
        key: 'dial',
        label: 'The meter shows',
        unit: '',
        least: 0,
        most: 1,
        usual: 1,
        choices: [
          { value: 1, label: 'a dial from 1 to 10' },
          { value: 0, label: 'percent' },
        ],
      },
    ],
    steps: () => [
      {
        condition: 'beside the meter',
        title: 'Read both',
        doing:
          'Put the meter in beside the probe, at its depth. Type what it shows, capture. Twice a day, wet days and dry ones.',
        percent: null,
      },
    ],
    openEnded: true,
    leastPoints: 5,
    typed: { label: 'The meter shows', unit: '', least: 0, most: 100 },
    curves: ALL,
    percentKind: (inputs) => (inputs.dial === 0 ? 'factory' : 'span'),
  },
  {
    id: 'feel',
    name: 'Bands by feel',
    when: 'No percent needed: push a finger in, say what it feels, capture. Gives the raw cut-offs between dry, low, right, wet and flooded.',
    takes: 'some days',
    fields: [],
    steps: () => [
      {
        condition: 'felt by hand',
        title: 'Feel and read',
        doing:
          'Push a finger in beside the probe, to its depth. Say what you feel, then capture. Dry days and wet ones.',
        percent: null,
      },
    ],
    openEnded: true,
    leastPoints: 3,
    typed: null,
    curves: ['line'],
    percentKind: kindOf('span'),
  },
  {
    id: 'factory',
    name: 'Factory curve, checked',
    when: 'For a probe that comes with a curve: keep it, but check it against one or two soils whose water content you weighed.',
    takes: 'an hour',
    fields: [
      {
        key: 'lowCounts',
        label: 'Raw value at the low end of its sheet',
        unit: 'counts',
        least: -1e6,
        most: 1e6,
      },
      { key: 'lowPercent', label: 'What the sheet says there', unit: '%', least: 0, most: 100, usual: 0 },
      {
        key: 'highCounts',
        label: 'Raw value at the high end of its sheet',
        unit: 'counts',
        least: -1e6,
        most: 1e6,
      },
      { key: 'highPercent', label: 'What the sheet says there', unit: '%', least: 0, most: 100, usual: 100 },
      { key: 'sheetSigma', label: '± that the sheet promises', unit: '%', least: 0.1, most: 20, usual: 3 },
    ],
    steps: () => [
      {
        condition: 'known content',
        title: 'A soil that you weighed',
        doing:
          'Push it into a soil whose water content you know by weighing. Type the content, capture. One soil or two, far apart.',
        percent: null,
      },
    ],
    openEnded: true,
    leastPoints: 1,
    typed: { label: 'Water content by weighing', unit: '% VWC', least: 0, most: 100 },
    curves: ['line'],
    percentKind: kindOf('factory'),
  },
  {
    id: 'drain',
    name: 'Drain test',
    when: 'For what the plant can use: 100 is what the soil holds a day after soaking (its capacity), 0 is where the plant hangs its leaves.',
    takes: 'two days and a dry spell',
    fields: [],
    steps: () => [
      {
        condition: 'drained a day',
        title: 'Soaked, drained for a day',
        doing: 'Soak the plot until it drips, cover it, leave it a day. What it holds then is its capacity.',
        percent: 100,
      },
      {
        condition: 'plant hangs its leaves',
        title: 'First leaves hang',
        doing:
          'Let it dry until the first leaves hang in the morning, capture, then water at once. With a plant you would not risk, take dry soil of the plot.',
        percent: 0,
      },
    ],
    openEnded: false,
    leastPoints: 2,
    typed: null,
    curves: ['line'],
    percentKind: kindOf('available'),
  },
  {
    id: 'cut-offs',
    name: 'Raw cut-offs',
    when: 'No percent at all, for those who go by the bare numbers: water above 3 000 counts, enough at 2 400. Honest about what it knows, and no two probes can be compared by it.',
    takes: 'two looks',
    fields: [],
    steps: () => [
      {
        condition: 'time to water',
        title: 'Time to water',
        doing:
          'When you would reach for the can: capture what the probe reads, or type the number that you go by.',
        percent: CUT_OFFS.start,
      },
      {
        condition: 'watered enough',
        title: 'Watered enough',
        doing: 'When you would put the can down, and the water has sunk in: capture, or type the number.',
        percent: CUT_OFFS.stop,
      },
    ],
    openEnded: false,
    leastPoints: 2,
    typed: { label: 'Or the number itself', unit: 'counts', least: 0, most: 1e6, optional: true },
    curves: ['line'],
    percentKind: kindOf('counts'),
  },
];

export const methodOf = (id: MethodId): Method => {
  const method = byId(METHODS, id);
  if (!method) throw new RangeError(`methodOf: no method ${id}`);
  return method;
};
export const ALL_METHODS: readonly Method[] = METHODS;

export type MissingInput = { readonly kind: 'missing'; readonly key: string; readonly label: string };

/** The first number that a run still needs, or that lies out of its range; null when all are there. */
export function missingInput(method: Method, inputs: Inputs): MissingInput | null {
  const missing = method.fields.find((field) => {
    const value = inputs[field.key];
    if (value === undefined) return !field.optional;
    return (
      !(value >= field.least && value <= field.most) || (field.whole === true && !Number.isInteger(value))
    );
  });
  return missing ? { kind: 'missing', key: missing.key, label: missing.label } : null;
}

export const usualInputs = (method: Method): Record<string, number> =>
  Object.fromEntries(
    method.fields.flatMap((field) => (field.usual === undefined ? [] : [[field.key, field.usual] as const])),
  );

export function mixingInputs(inputs: Inputs): MixingInputs {
  const number = (key: keyof MixingInputs) => inputs[key] ?? Number.NaN;
  return {
    volumeMl: number('volumeMl'),
    emptyG: number('emptyG'),
    sampleWetG: number('sampleWetG'),
    sampleDryG: number('sampleDryG'),
    soilG: number('soilG'),
    scaleStepG: number('scaleStepG'),
    volumeSigmaFrac: assumedOf(inputs).volume / 100,
    pressingSigmaFrac: assumedOf(inputs).pressing / 100,
    steps: number('steps'),
    grainDensity: number('grainDensity'),
  };
}

export const potInputs = (inputs: Inputs): PotInputs => ({
  tareG: inputs.tareG ?? 0,
  plantG: inputs.plantG ?? 0,
  drySoilG: inputs.drySoilG ?? null,
  volumeMl: inputs.volumeMl ?? null,
  soakedG: inputs.soakedG ?? null,
  driestG: inputs.driestG ?? null,
  scaleStepG: inputs.scaleStepG ?? 1,
});

/** What a maker's sheet says of a raw value, percent. */
export function factorySays(inputs: Inputs, counts: number): number {
  const { lowCounts = 0, highCounts = 1, lowPercent = 0, highPercent = 100 } = inputs;
  return lowPercent + ((counts - lowCounts) * (highPercent - lowPercent)) / (highCounts - lowCounts);
}

export type KnownIssue =
  MixingIssue | MixedIssue | PotIssue | { readonly kind: 'not-typed' } | { readonly kind: 'no-percent' };

/** The percent that a point stands for, by definition or by what was weighed and typed. */
export function knownOf(
  method: Method,
  inputs: Inputs,
  point: { readonly condition: Condition; readonly typed: number | null },
): Result<Uncertain, KnownIssue> {
  const exact = (percent: number) => ok({ percent, sigmaPercent: 0, common: [] });
  if (method.typed === null || method.typed.optional) {
    const step = method.steps(inputs).find((one) => one.condition === point.condition);
    return step?.percent === null || step === undefined ? fail({ kind: 'no-percent' }) : exact(step.percent);
  }
  if (point.typed === null) return fail({ kind: 'not-typed' });
  switch (method.id) {
    case 'mixing': {
      const of = mixingInputs(inputs);
      const plan = planMixing(of);
      if (!plan.ok) return plan;
      const mixed = weighMixed(of, plan.value, point.typed);
      if (!mixed.ok) return mixed;
      const byMass = inputs.byMass === 1;
      return ok({
        percent: 100 * (byMass ? mixed.value.gravimetric : mixed.value.volumetric),
        sigmaPercent: 100 * (byMass ? mixed.value.gravimetricSigma : mixed.value.volumetricSigma),
        common: (byMass ? mixed.value.gravimetricCommon : mixed.value.volumetricCommon).map(
          (one) => 100 * one,
        ),
      });
    }
    case 'pot':
      return percentOfPot(potInputs(inputs), point.typed);
    case 'meter':
      return ok({
        ...percentOfMeter(inputs.dial === 0 ? 'percent' : 'dial', point.typed, assumedOf(inputs).meter),
        common: [],
      });
    default:
      return ok({ percent: point.typed, sigmaPercent: 1, common: [] });
  }
}
