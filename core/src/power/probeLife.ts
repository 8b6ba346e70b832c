import { input, step, worked, type Worked } from '../quantity/worked.ts';

/**
 * Life of a probe that is powered for a share of the time, years: wear adds up, 1 / life = share / powered life + (1 − share) / idle life.
 *
 * While current flows, metal leaves the electrode in proportion to the charge (Faraday's law); between readings it still ages in wet soil.
 * @param of.share part of the time that the probe is powered, 0..1
 */
export function workProbeLife(of: { share: number; poweredYears: number; idleYears: number }): Worked {
  const years = step(
    {
      name: 'lasts',
      unit: 'years',
      decimals: 1,
      formula: '1 ÷ ({share} ÷ {powered} + (1 − {share}) ÷ {idle})',
      inputs: {
        share: input('share of the time under power', of.share, '', 4),
        powered: input('life under constant power', of.poweredYears, 'years', 1),
        idle: input('life in the soil without power', of.idleYears, 'years', 1),
      },
    },
    ({ share, powered, idle }) => 1 / (share / powered + (1 - share) / idle),
  );
  return worked('Probe life', [years], {
    source:
      'Wear adds up; electrode loss is proportional to charge (Faraday). Both lives are makers’ experience and can be edited.',
    wouldChange: 'Powering it only to read, better sealing, another kind of probe.',
  });
}

/** Share of the time a probe is under power when it is switched on for each reading, 0..1. */
export const poweredShare = (of: { warmUpS: number; measureS: number; everyS: number }): number =>
  Math.min(1, (of.warmUpS + of.measureS) / of.everyS);
