/** Workings of what is left, what is shared and what rains down: for the slip. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { daysLeft, volumeIn, type Reservoir } from './reservoir.ts';
import { rainOf, type Evenness } from './outlets.ts';

/** Evenness by the low quarter, percent. @param volumesMl what the outlets or cups held */
export function workEvenness(even: Evenness): Worked {
  const value = step(
    {
      name: 'evenness of the low quarter',
      unit: '% of the mean',
      formula: '100 × {low} ÷ {mean}',
      inputs: {
        low: input('mean of the driest quarter', (even.lowQuarterPercent * even.meanMl) / 100, 'ml', 1),
        mean: input('mean of all', even.meanMl, 'ml', 1),
      },
    },
    ({ low, mean }) => (100 * low) / mean,
  );
  return worked('Evenness', [value], {
    source:
      'Merriam & Keller 1978, Farm Irrigation System Evaluation: distribution uniformity of the low quarter.',
    note: 'Above 90 is very even, below 70 the thirstiest plant gets too little or the others too much.',
    wouldChange: 'Outlets at one height, tubes of one length, adjustable drippers, a cleaned sieve.',
  });
}

/** Rain of a sprinkler, mm per minute. */
export function workRain(meanMl: number, areaCm2: number, minutes: number): Worked {
  const rain = step(
    {
      name: 'rain',
      unit: 'mm/min',
      decimals: 2,
      formula: '10 × {mean} ÷ {area} ÷ {minutes}',
      inputs: {
        mean: input('mean of the cups', meanMl, 'ml', 1),
        area: input('mouth of a cup', areaCm2, 'cm²', 1),
        minutes: input('it ran for', minutes, 'min', 1),
      },
    },
    ({ mean, area, minutes: time }) => rainOf(mean, area, time),
  );
  return worked('Rain of the sprinkler', [rain], {
    source: 'One ml on one cm² stands ten mm high.',
    wouldChange: 'Another nozzle, another pressure, wind.',
  });
}

/** What a reservoir holds at a raw value, ml. */
export function workVolumeIn(reservoir: Reservoir, raw: number): Worked {
  const volume = step(
    {
      name: 'water in it',
      unit: 'ml',
      formula: '{levels}, joined by a monotone curve, at {raw}',
      inputs: {
        levels: input('known levels', reservoir.knots.length, ''),
        raw: input('what the sensor reads', raw, 'raw', 0),
      },
    },
    ({ raw: at }) => volumeIn(reservoir, at),
  );
  return worked('Water in the reservoir', [volume], {
    source:
      'Fritsch & Carlson 1980, Monotone Piecewise Cubic Interpolation: between two levels it never turns back, as a tub that widens does not.',
    note: 'Beyond the highest and the lowest level it stays there.',
    wouldChange: 'More known levels; a sensor that was moved.',
  });
}

/** Days that the water above the minimum lasts; null while nothing is used. */
export function workDaysLeft(volumeMl: number, minimumMl: number, usedMlPerDay: number): Worked | null {
  if (daysLeft(volumeMl, minimumMl, usedMlPerDay) === null) return null;
  const days = step(
    {
      name: 'days left',
      unit: 'days',
      decimals: 1,
      formula: '({now} − {minimum}) ÷ {used}, not below 0',
      inputs: {
        now: input('water in it', volumeMl, 'ml'),
        minimum: input('minimum', minimumMl, 'ml'),
        used: input('used a day, mean of the last week', usedMlPerDay, 'ml/day'),
      },
    },
    ({ now, minimum, used }) => daysLeft(now, minimum, used) ?? 0,
  );
  return worked('Days left', [days], {
    source: 'What lies above the minimum over what the pumps of the last week took, by the log.',
    note: 'Rain, heat and evaporation from an open tub are not in it.',
    wouldChange: 'A hot week, a refill, a smaller daily maximum.',
  });
}
