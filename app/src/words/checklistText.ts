/** The steps of a bench check in words. */
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { CheckStep } from '@plain-trowel/core/sketch/checklist';

const limitText = ({ limitTenths, unit }: { readonly limitTenths: number; readonly unit: string }): string =>
  `${formatNumber(limitTenths / 10, 1)} ${unit}`;

export type StepText = { readonly title: string; readonly doing: string };

/** No default: a new step fails to compile here until it has words. */
export function stepText(step: CheckStep): StepText {
  switch (step.kind) {
    case 'meter':
      return {
        title: `${step.measure.red} against ${step.measure.black}: ${step.measure.expects}`,
        doing: `With the meter, ${step.measure.stage}.`,
      };
    case 'air':
    case 'water': {
      const where = step.kind === 'air' ? 'in air' : 'in water up to its line';
      return {
        title: `${step.label} ${where}`,
        doing:
          step.rawCounts === null
            ? `Hold it ${where} and look at its raw number: it must move far, and come to rest.`
            : `Hold it ${where}: about ${formatNumber(step.rawCounts)} counts, give or take ${formatNumber(step.withinCounts)}.`,
      };
    }
    case 'output':
      return {
        title: `${step.name} is switched on and off`,
        doing: `Tube in the tank, tray below. Type “test pump ${step.line} 3s”: it must run for about 3 s and stop by itself. Water where it should be, and none after it stops.`,
      };
    case 'contact':
      return {
        title: `${step.name} switches, and rests as it should`,
        doing: `Take the board’s supply off: ${step.use === 'light' ? 'the light must be dark' : step.restPermits ? 'the other timer must be able to water' : 'the other timer must not be able to water'}. With it on again, wait until it is due (“why” says what it waits for) and see it switch.`,
      };
    case 'lamp':
      return {
        title: `${step.name} lights`,
        doing: `Type “test lamp”: it must light for four seconds, each colour in turn where it has three. Then it shows how ${step.plot} stands.`,
      };
    case 'reads':
      return {
        title: `${step.label} is read`,
        doing: `Look at “${step.name}=…” on the line, and whether it can be: warm it in your hand, cover it, lift it, and see it move.`,
      };
    case 'display':
      return {
        title: `${step.name} shows its words`,
        doing: `It must say how ${step.plot} stands, in whole letters.`,
      };
    case 'buzzer':
      return { title: `${step.name} sounds`, doing: 'Type “test lamp”: it must sound once.' };
    case 'dry':
      return {
        title: `${step.label} reads below ${limitText(step)}`,
        doing: 'Hold it in dry soil, or wipe it dry and put it into barely moist soil.',
      };
    case 'wet':
      return {
        title: `${step.label} reads ${limitText(step)} or more`,
        doing: 'Dip it into wet soil, up to its line.',
      };
    case 'probe-out':
      return {
        title: `${step.label} pulled out: the board knows no percent`,
        doing: 'Pull its plug, or hold it in the air: nothing that goes by it may start from then on.',
      };
    case 'tank-low':
      return {
        title: `${step.tank} low: ${step.name} refuses`,
        doing: `Lift the float, or hold the sensor as over an empty tank, and type “give ${step.line} 20”: it must answer “refused ${step.line} tank-low”.`,
      };
  }
}
