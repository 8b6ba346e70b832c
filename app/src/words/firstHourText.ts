/** The first hour with a pump, in words, and what may land when it waters by itself. */
import type { FirstStep } from '@plain-trowel/core/garden/bind/firstHour';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatVolume } from '@plain-trowel/core/quantity/format';

export const FIRST_STEPS: Readonly<
  Record<FirstStep['id'], { readonly title: string; readonly doing: string }>
> = {
  jug: {
    title: 'Its dose was measured with a jug',
    doing: 'Three runs of different length into a jug or onto a scale.',
  },
  probeOutAt: {
    title: 'With the probe out of the soil it refused',
    doing:
      'Pull the probe out and hold it in the air: the pump must stay off, and say why. Push it back to the same depth.',
  },
  tankLowAt: {
    title: 'With the tank low it refused',
    doing: 'Lift the float, or hold the sensor as if the tank were empty: the pump must stay off.',
  },
  watchedAt: {
    title: 'One run was watched',
    doing:
      'Stand beside it from its start to its end: water where it should be and nowhere else, and none after it stops.',
  },
};

/** "Up to 600 ml a day may land …" */
export const mayLandText = (line: WaterLine): string =>
  `Up to ${formatVolume(line.dailyMaxMl)} a day may land, also while nobody is there. Put the pot into a tray, keep the end of the tube above the water of the tank so that it cannot siphon, and stay for the first run.`;
