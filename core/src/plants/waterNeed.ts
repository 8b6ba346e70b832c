/**
 * A first estimate of what a plot drinks in a day, so that a dose is not a guess:
 *
 *     need = reference evapotranspiration × crop factor × area        1 mm on 1 m² is a litre
 *
 * Source: Allen et al. 1998, FAO-56, eq. 58 (ET of a crop = factor × ET0). A pot counts with the wider of its mouth and the spread of its leaves.
 */
import { input, step, worked, type Worked, type WorkedStep } from '../quantity/worked.ts';
import type { KnownSoil } from '../soils/soilKinds.ts';
import { CAUTIOUS_FRAC, type PlantGroup } from './plantGroups.ts';
import { WEATHER, type WeatherId } from './weather.ts';

export type Size =
  | { readonly kind: 'pot'; readonly mouthCm: number; readonly spreadCm: number }
  | { readonly kind: 'bed'; readonly areaM2: number };

/** Of a plant that nobody has named. */
const USUAL_FACTOR = 1;

/** The plant's demand, mm a day. */
export const demandMm = (plant: PlantGroup | null, weather: WeatherId): number =>
  WEATHER[weather].et0MmPerDay * (plant?.cropFactor ?? USUAL_FACTOR);

function areaStep(size: Size): WorkedStep {
  if (size.kind === 'bed')
    return step(
      {
        name: 'area',
        unit: 'm²',
        decimals: 2,
        formula: '{area}',
        inputs: { area: input('area of the bed', size.areaM2, 'm²', 2) },
      },
      ({ area }) => area,
    );
  const spreads = size.spreadCm > size.mouthCm;
  return step(
    {
      name: 'area',
      unit: 'm²',
      decimals: 3,
      formula: 'π ÷ 4 × ({across} ÷ 100)²',
      inputs: {
        across: input(
          spreads ? 'spread of the leaves' : 'mouth of the pot',
          spreads ? size.spreadCm : size.mouthCm,
          'cm',
        ),
      },
    },
    ({ across }) => (Math.PI / 4) * (across / 100) ** 2,
  );
}

const lowered = (name: string): string => name.charAt(0).toLowerCase() + name.slice(1);

export function waterNeed(size: Size, plant: PlantGroup | null, weather: WeatherId): Worked {
  const area = areaStep(size);
  const need = step(
    {
      name: 'water need',
      unit: 'ml/day',
      formula: '{et0} × {factor} × {area} × 1000',
      inputs: {
        et0: input(
          `reference evapotranspiration, ${lowered(WEATHER[weather].name)}`,
          WEATHER[weather].et0MmPerDay,
          'mm/day',
          1,
        ),
        factor: input(
          plant ? `crop factor of ${plant.name}` : 'crop factor, plant not chosen',
          plant?.cropFactor ?? USUAL_FACTOR,
          '',
          2,
        ),
        area: input('area', area.value, 'm²', 3),
      },
    },
    ({ et0, factor, area: squareM }) => et0 * factor * squareM * 1000,
  );
  return worked('Water need', [area, need], {
    source: `Allen et al. 1998, FAO-56, eq. 58; weather: ${WEATHER[weather].basis}; plant: ${plant?.basis ?? 'not chosen'}.`,
    note: 'A first estimate, right within a factor of two. A week of weighing the pot, or the log, knows better.',
    wouldChange:
      'Weather, wind and shade; how large the plant is; mulch; a saucer that catches what runs through.',
  });
}

/** Roots of a plant that nobody has named, m. */
const USUAL_ROOT_M = 0.3;

/**
 * What the soil of a bed can give before growth suffers, and so what it takes from the start limit to full, ml:
 *
 *     readily available water = p × (θ_capacity − θ_wilt) ÷ 100 × root depth        1 mm on 1 m² is a litre
 *
 * Source: Allen et al. 1998, FAO-56, eq. 82 and 83. The least root depth of the table counts: beds are seldom deeper than they were dug.
 * @returns null while the soil is not known, and for a pot, whose soil ends at its wall
 */
export function readilyAvailable(size: Size, plant: PlantGroup | null, soil: KnownSoil): Worked | null {
  const { capacityVwc, wiltingVwc } = soil;
  if (size.kind === 'pot' || capacityVwc === null || wiltingVwc === null) return null;
  const depth = step(
    {
      name: 'readily available water',
      unit: 'mm',
      formula: '{p} × ({capacity} − {wilting}) ÷ 100 × {root} × 1000',
      inputs: {
        p: input(
          plant ? `depletion fraction of ${plant.name}` : 'cautious depletion fraction',
          plant?.depletionFrac ?? CAUTIOUS_FRAC,
          'share',
          2,
        ),
        capacity: input('field capacity', capacityVwc, '% VWC', 1),
        wilting: input('wilting point', wiltingVwc, '% VWC', 1),
        root: input('root depth', plant?.rootM[0] ?? USUAL_ROOT_M, 'm', 2),
      },
    },
    ({ p, capacity, wilting, root }) => p * ((capacity - wilting) / 100) * root * 1000,
  );
  const volume = step(
    {
      name: 'on this bed',
      unit: 'ml',
      formula: '{depth} × {area} × 1000',
      inputs: {
        depth: input('readily available water', depth.value, 'mm', 1),
        area: input('area', size.areaM2, 'm²', 2),
      },
    },
    ({ depth: mm, area }) => mm * area * 1000,
  );
  return worked('From the start limit to full', [depth, volume], {
    source: `Allen et al. 1998, FAO-56, eq. 82 and 83. Plant: ${plant?.basis ?? 'not chosen'}. Soil: ${soil.basis}.`,
    note: 'More than this at once runs through below the roots.',
    wouldChange: 'Another soil or plant; a bed that was dug deeper or less deep than its roots would reach.',
  });
}
