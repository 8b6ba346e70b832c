import type { Garden } from '../document/schema.ts';
import { chosen } from './layOut.ts';

/** How a garden's boards report: as was chosen, else as the plan ranks it once somebody has said that Wi-Fi reaches; null: nobody has said. */
export function linkOf(garden: Garden): string | null {
  const { choices, answers } = garden.plan;
  if (choices.link) return choices.link.candidate;
  return answers.wifi === 'good' || answers.wifi === 'weak' ? chosen(garden).link : null;
}
