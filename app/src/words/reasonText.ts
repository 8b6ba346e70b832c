import type { Reason } from '@plain-trowel/core/control/engine';

/** Why the engine does what it does, as the end of a sentence. No default: a new reason fails to compile here until it has words. */
export function reasonText(reason: Reason): string {
  switch (reason) {
    case 'below-start':
      return 'the soil is below the start limit';
    case 'above-stop':
      return 'the stop limit was reached';
    case 'not-below-start':
      return 'the soil is not below the start limit';
    case 'max-run':
      return 'the maximum run was reached';
    case 'min-interval':
      return 'the minimum interval since the last start, or since switching on, is not over';
    case 'stale':
      return 'the last reading is too old to act on';
    case 'implausible':
      return 'the reading is at the rail: plug out, cable cut or shorted';
    case 'no-reading':
      return 'no reading has come yet';
    case 'switched-off':
      return 'watering by itself is switched off';
    case 'no-line':
      return 'this plot has no pump';
    case 'not-calibrated':
      return 'the probe has no calibration that holds here';
    case 'clock-went-back':
      return 'the board’s clock went back';
  }
}
