/**
 * What is tried at the bench once a board runs its program: supplies with the meter, every probe in air and in water, every output, the limits, and the guards that
 * must refuse. Each step but the meter's is seen by what the board says.
 */
import type { LineConfig } from '../control/engine/settings.ts';
import { usesProbe } from '../control/programs/programs.ts';
import { calibrationOf } from '../garden/bind/decided.ts';
import type { Garden } from '../garden/document/schema.ts';
import { mean } from 'simple-statistics';
import { byId } from '../quantity/byId.ts';
import type { Measure } from '../wiring/measures.ts';
import { inputsOf, type BoardPlan, type SketchInput } from './plan.ts';
import { flatProgram } from './flatProgram.ts';
import { unitOf } from './heading.ts';
import type { Said } from './talk.ts';

export type CheckStep = { readonly id: string } & (
  | { readonly kind: 'meter'; readonly measure: Measure }
  /** A probe in one of the references that it was calibrated in; null: it has none of the kind. */
  | {
      readonly kind: 'air' | 'water';
      readonly channelId: string;
      readonly label: string;
      readonly rawCounts: number | null;
      readonly withinCounts: number;
    }
  /** Everything else that is read: whether anything comes, a person says whether it can be. */
  | { readonly kind: 'reads'; readonly channelId: string; readonly label: string; readonly name: string }
  | { readonly kind: 'output'; readonly line: number; readonly name: string; readonly lineId: string }
  /** The probe of a line on either side of its limits, tenths. */
  | {
      readonly kind: 'dry' | 'wet';
      readonly input: string;
      readonly label: string;
      readonly limitTenths: number;
      /** "% span" */
      readonly unit: string;
    }
  | { readonly kind: 'probe-out'; readonly input: string; readonly label: string; readonly lineId: string }
  | {
      readonly kind: 'tank-low';
      readonly line: number;
      readonly name: string;
      readonly tank: string;
      readonly lineId: string;
    }
  /** A lamp, buzzer or display, which only a person sees and hears. */
  | { readonly kind: 'lamp' | 'buzzer' | 'display'; readonly name: string; readonly plot: string }
  /** An output that holds a state: what it does without current, and that it switches. */
  | {
      readonly kind: 'contact';
      readonly contact: number;
      readonly name: string;
      readonly use: 'light' | 'permit';
      readonly restPermits: boolean;
    }
);

/** A reading counts as the reference's within this share of the way between air and water, or six times its noise. */
const NEAR_SHARE = 0.05;
const NOISES = 6;

export function checklistOf(
  garden: Garden,
  plan: BoardPlan,
  measures: readonly Measure[],
): readonly CheckStep[] {
  const sensors = [...new Set(plan.sources.flatMap(inputsOf))].flatMap((at) => plan.inputs[at] ?? []);
  return [
    ...measures.map((measure, at): CheckStep => ({ id: `meter ${at}`, kind: 'meter', measure })),
    ...sensors.flatMap((input) => referenceSteps(garden, input)),
    ...plan.inputs
      .filter((input) => !sensors.includes(input))
      .map(({ channelId, label, name }): CheckStep => ({
        id: `reads ${channelId}`,
        kind: 'reads',
        channelId,
        label,
        name,
      })),
    ...plan.lines.map(({ id, name }, at): CheckStep => ({
      id: `output ${id}`,
      kind: 'output',
      line: at + 1,
      name,
      lineId: id,
    })),
    ...plan.contacts.map(({ id, name, config: { rule } }, at): CheckStep => ({
      id: `contact ${id}`,
      kind: 'contact',
      contact: at + 1,
      name,
      use: rule.kind,
      restPermits: rule.kind === 'permit' && rule.restPermits,
    })),
    ...plan.lamps.map(({ name, kind, watch }, at): CheckStep => ({
      id: `lamp ${at} ${name}`,
      kind: kind === 'buzzer' ? 'buzzer' : 'lamp',
      name,
      plot: plan.watches[watch]?.plot ?? '',
    })),
    ...plan.displays.map(({ name, watch }, at): CheckStep => ({
      id: `display ${at} ${name}`,
      kind: 'display',
      name,
      plot: plan.watches[watch]?.plot ?? '',
    })),
    ...plan.lines.flatMap(({ id, name }, at) => {
      const config = plan.engine.lines[at];
      return config ? guardSteps(garden, plan, config, { id, name, at }) : [];
    }),
  ];
}

function referenceSteps(garden: Garden, { channelId, label }: SketchInput): CheckStep[] {
  const channel = byId(garden.channels, channelId);
  const calibration = channel && calibrationOf(garden, channel);
  const rawOf = (condition: string): number | null => {
    const captures = calibration?.points.find((one) => one.condition === condition)?.captures ?? [];
    return captures.length === 0 ? null : mean(captures.map((one) => one.rawCounts));
  };
  const [air, water] = [rawOf('air'), rawOf('water')];
  const span = air === null || water === null ? 0 : Math.abs(air - water);
  const withinCounts = Math.max(NEAR_SHARE * span, NOISES * (calibration?.noiseCounts ?? 0));
  return (['air', 'water'] as const).map((kind) => ({
    id: `${kind} ${channelId}`,
    kind,
    channelId,
    label,
    rawCounts: kind === 'air' ? air : water,
    withinCounts,
  }));
}

function guardSteps(
  garden: Garden,
  plan: BoardPlan,
  config: LineConfig,
  { id, name, at }: { readonly id: string; readonly name: string; readonly at: number },
): CheckStep[] {
  const source = config.sensor === null ? undefined : plan.sources[config.sensor];
  // Of several together no single one shows a limit.
  const input = source?.by === 'one' ? plan.inputs[source.input] : undefined;
  const flat = flatProgram(config.program);
  const channel = byId(garden.channels, input?.channelId ?? '');
  const calibration = channel && calibrationOf(garden, channel);
  const unit = calibration ? unitOf(calibration.percentKind) : '%';
  const goesByProbe = input !== undefined && usesProbe(config.program.kind);
  const limit = (kind: 'dry' | 'wet', limitTenths: number): CheckStep[] =>
    goesByProbe && limitTenths > 0
      ? [{ id: `${kind} ${id}`, kind, input: input.name, label: input.label, limitTenths, unit }]
      : [];
  const tank = byId(garden.reservoirs, byId(garden.waterLines, id)?.tankId ?? '');
  return [
    ...limit('dry', flat.startTenths),
    ...limit('wet', flat.stopTenths > 0 ? flat.stopTenths : flat.startTenths),
    ...(goesByProbe
      ? [
          {
            id: `probe-out ${id}`,
            kind: 'probe-out',
            input: input.name,
            label: input.label,
            lineId: id,
          } as const,
        ]
      : []),
    ...(tank
      ? [
          {
            id: `tank-low ${id}`,
            kind: 'tank-low',
            line: at + 1,
            name,
            tank: tank.name,
            lineId: id,
          } as const,
        ]
      : []),
  ];
}

/** What the board at the line shows right now. */
export type BoardShows = {
  readonly raw: (channelId: string) => number | null;
  /** By the name of the input: tenths, null where the board knows no percent, undefined where it has not said. */
  readonly percents: Readonly<Record<string, number | null>>;
  readonly said: readonly Said[];
};

/** Whether the board shows right now what a step asks for. The meter's, and lamps, are seen by people only. */
export function isSeen(step: CheckStep, { raw, percents, said }: BoardShows): boolean {
  switch (step.kind) {
    case 'meter':
    case 'lamp':
    case 'buzzer':
    case 'display':
      return false;
    case 'reads':
      return raw(step.channelId) !== null;
    case 'contact':
      return said.some((one) => one.kind === 'contact-event' && one.contact === step.contact);
    case 'air':
    case 'water': {
      const now = raw(step.channelId);
      return now !== null && step.rawCounts !== null && Math.abs(now - step.rawCounts) <= step.withinCounts;
    }
    case 'output':
      return said.some(
        (one) =>
          one.kind === 'event' &&
          one.line === step.line &&
          one.told.kind === 'stopped' &&
          one.told.reason === 'dose-done',
      );
    case 'dry': {
      const tenths = percents[step.input];
      return tenths != null && tenths < step.limitTenths;
    }
    case 'wet': {
      const tenths = percents[step.input];
      return tenths != null && tenths >= step.limitTenths;
    }
    case 'probe-out':
      return percents[step.input] === null;
    case 'tank-low':
      return said.some(
        (one) =>
          one.kind === 'event' &&
          one.line === step.line &&
          one.told.kind === 'refused' &&
          (one.told.reason === 'tank-low' || one.told.reason === 'tank-unknown'),
      );
  }
}
