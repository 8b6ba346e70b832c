/**
 * Temperatures, large volumes and depths in the units that the person at this screen reads. As with a language there is one choice for the page: it is set
 * where the garden is opened, and sentences need not be handed it one by one. Workings stay metric, for their formulas are.
 */
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { METRIC, shownUnit, type Units } from '@plain-trowel/core/quantity/units';

let chosen: Units = METRIC;

/** Sets the units of every sentence from here on. */
export const speakIn = (units: Units): void => {
  chosen = units;
};

function text(metric: number, unit: string, decimals: number, apart = false): string {
  const { show, unit: shown, moreDecimals } = shownUnit(chosen, unit, apart);
  return `${formatNumber(show(metric), decimals + moreDecimals)} ${shown}`;
}

export const temperatureText = (celsius: number, decimals = 1): string => text(celsius, '°C', decimals);

/** How far two temperatures lie apart. */
export const temperatureApartText = (celsius: number, decimals = 1): string =>
  text(celsius, '°C', decimals, true);

/** A large volume. @param volumeMl in ml all the same */
export const litresText = (volumeMl: number): string => text(volumeMl / 1000, 'l', 1);

export const depthText = (cm: number): string => text(cm, 'cm', Number.isInteger(cm) ? 0 : 1);
