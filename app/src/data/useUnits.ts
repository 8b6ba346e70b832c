import { use } from 'react';
import { METRIC, shownUnit, type ShownUnit } from '@plain-trowel/core/quantity/units';
import { GardenContext } from './gardenContext.ts';

/** How numbers of a metric unit are shown and taken in here, as the garden's person has chosen. */
export function useShownUnit(metric: string, apart = false): ShownUnit {
  const units = use(GardenContext)?.garden.units ?? METRIC;
  return shownUnit(units, metric, apart);
}
