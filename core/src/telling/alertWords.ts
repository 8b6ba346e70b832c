import type { AlertKind } from '../control/alerts.ts';

/** What an alert says, behind the name of what it is about. */
export function alertWords(kind: AlertKind): string {
  switch (kind) {
    case 'dry':
      return 'too dry';
    case 'wet':
      return 'too wet';
    case 'hot':
      return 'too hot';
    case 'cold':
      return 'too cold, frost may come';
    case 'probe-fault':
      return 'the probe cannot be trusted';
    case 'out-of-soil':
      return 'the probe reads what it reads in air: out of the soil, or the soil has shrunken away? Nothing waters by it';
    case 'silent-board':
      return 'the board is silent';
    case 'tank-low':
      return 'below its minimum: fill it';
    case 'battery-low':
      return 'the battery is low';
    case 'frozen-charge':
      return 'it is freezing, and a lithium cell must not be charged below 0 °C: take the panel or the charger off until it is warmer, or bring it in';
    case 'line-locked':
      return 'locked: doses did not raise the reading. Check tube, pump and probe, then unlock it';
    case 'recalibrate':
      return 'its calibration is due again';
  }
}
