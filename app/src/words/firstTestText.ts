import type { TestAnswer } from '@plain-trowel/core/firstTest/firstTest';
import type { TestStep } from '@plain-trowel/core/garden/document/probeSchema';
import type { ProbeKind } from '@plain-trowel/core/quantity/probeKind';
import { formatNumber } from '@plain-trowel/core/quantity/format';

export type StepWords = { readonly title: string; readonly doThis: string; readonly shouldSee: string };

const TITLES: Readonly<Record<TestStep, string>> = { touch: 'Touch', air: 'Air', water: 'Water' };

const TOUCH: Partial<Record<ProbeKind, string>> = {
  'resistive fork': 'Take both prongs between wet fingers.',
  'home-made electrodes': 'Bridge both electrodes with a wet finger.',
};
const WATER: Partial<Record<ProbeKind, string>> = {
  'resistive fork': 'Put the prongs into a glass of tap water, the electronics stay out.',
  'home-made electrodes': 'Put both electrodes into a glass of tap water, the terminals stay out.',
  'analog volumetric probe': 'Put the rods into a glass of water, wide enough that no rod touches it.',
};
const WATER_SEE: Partial<Record<ProbeKind, string>> = {
  'resistive fork': 'A large move within seconds, then minutes of creeping: this kind takes its time.',
  'home-made electrodes': 'A large move; how far depends on the water. It never reads zero.',
};

/** What to do and what should be seen, by the kind of probe. */
export function stepWords(step: TestStep, kind: ProbeKind): StepWords {
  switch (step) {
    case 'touch':
      return {
        title: TITLES.touch,
        doThis: TOUCH[kind] ?? 'Close your fingers round the blade, below the line.',
        shouldSee: 'The number moves at once and comes back when you let go.',
      };
    case 'air':
      return {
        title: TITLES.air,
        doThis: 'Wipe it dry and let it hang in air.',
        shouldSee: 'A number that stays put near one end, never exactly full scale.',
      };
    case 'water':
      return {
        title: TITLES.water,
        doThis: WATER[kind] ?? 'Put it into a glass of water up to the printed line, and no further.',
        shouldSee:
          WATER_SEE[kind] ?? 'A large move in the other direction, then rest. Water never reads zero.',
      };
  }
}

/** What the stream says of a step under way. */
export function answerText(answer: TestAnswer): string {
  switch (answer.kind) {
    case 'seen':
      return 'Seen.';
    case 'waiting':
      return `Moved by ${formatNumber(100 * answer.movedFrac, 1)} % of the span so far.`;
    case 'wait-for-rest':
      return 'Looks right; wait until it has stopped moving.';
    case 'at-rail':
      return answer.end === 'top'
        ? 'It sits at full scale: nothing is connected, or a wire is cut.'
        : 'It sits at zero: a short, or the probe has no supply.';
    case 'air-first':
      return 'Do the air step first: water is told by how far it is from air.';
  }
}
