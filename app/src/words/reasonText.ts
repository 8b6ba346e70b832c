import type { Reason } from '@plain-trowel/core/control/contract/reasons';

/** Why the engine does what it does, as the end of a sentence. No default: a new reason fails to compile here until it has words. */
export function reasonText(reason: Reason): string {
  switch (reason) {
    case 'below-start':
      return 'the soil is drier than the start limit';
    case 'timer':
      return 'it is the time of the timer';
    case 'dry-enough':
      return 'it is the time of the timer, and the probe does not object';
    case 'follows':
      return 'it follows its leader';
    case 'fallback':
      return 'the probe is faulty, and this is the small dose of the day';
    case 'order':
      return 'ordered by hand';
    case 'dose-done':
      return 'the dose was given';
    case 'above-stop':
      return 'the stop limit was reached';
    case 'wet-veto':
      return 'the probe says that it is wet enough';
    case 'stop-order':
      return 'stopped by hand';
    case 'max-run':
      return 'the maximum run was reached';
    case 'daily-max':
      return 'the maximum of a day was reached';
    case 'min-interval':
      return 'the minimum interval since the last start, or since switching on, is not over';
    case 'tank-low':
      return 'the tank is below its minimum';
    case 'tank-unknown':
      return 'the tank’s level is not known';
    case 'stale':
      return 'the last reading is too old to act on';
    case 'implausible':
      return 'the reading is at the rail: plug out, cable cut or shorted';
    case 'no-reading':
      return 'there is no reading yet';
    case 'unsettled':
      return 'the reading has just jumped and has not settled';
    case 'waiting-for-rise':
      return 'it is waiting to see the last dose arrive at the probe';
    case 'locked':
      return 'locked: several doses did not raise the reading. Tube off, pump dry or probe out of the soil. It stays locked until a person has looked and unlocks it';
    case 'other-line-runs':
      return 'another line of this board is running';
    case 'clock-went-back':
      return 'the board’s clock leapt to where it cannot be';
    case 'not-calibrated':
      return 'the probe has no calibration that holds here';
    case 'not-below-start':
      return 'the soil is not drier than the start limit';
    case 'soaking':
      return 'the last dose is soaking in';
    case 'pulses-used':
      return 'all doses of this round are given; it rests';
    case 'dose-interval':
      return 'the time between two doses is not over';
    case 'not-due':
      return 'no time of the timer is due';
    case 'too-wet':
      return 'it is the time of the timer, but the probe says that it is wet enough';
    case 'leader-rests':
      return 'its leader has not run';
    case 'alert-only':
      return 'this program only alerts; a person waters';
    case 'switched-off':
      return 'watering by itself is switched off';
    case 'no-line':
      return 'this plot has no pump';
    case 'clock-unknown':
      return 'the board does not know the time';
    case 'outside-hours':
      return 'it is outside its hours';
    case 'not-dark':
      return 'it is not dark';
    case 'light-unknown':
      return 'nothing says whether it is dark';
    case 'air-warm':
      return 'the air is too warm';
    case 'air-unknown':
      return 'the air temperature is not known';
    case 'soil-cold':
      return 'the soil is too cold';
    case 'soil-temperature-unknown':
      return 'the soil temperature is not known';
    case 'rain':
      return 'it rains';
    case 'rain-unknown':
      return 'nothing says whether it rains';
    case 'battery-low':
      return 'the battery is below its minimum';
    case 'battery-unknown':
      return 'the battery voltage is not known';
    case 'already-runs':
      return 'it is running already';
    case 'below-stop':
      return 'the round goes on, for the soil has not reached the stop limit';
    case 'settings-changed':
      return 'the settings of its board were changed';
    case 'out-of-soil':
      return 'the probe reads what it reads in air: out of the soil, or the soil has shrunken away from it';
    case 'bad-order':
      return 'that order has no volume that can be given';
    case 'unsound-settings':
      return 'its settings hold a number that cannot be';
    case 'contradiction':
      return 'its settings stand against each other; nothing runs by itself until that is solved';
    case 'skip-switch':
      return 'the skip switch is on';
    case 'skip-unknown':
      return 'nothing is heard of the skip switch';
    case 'in-hours':
      return 'it is within its hours';
    case 'dark':
      return 'it is dark within its hours';
    case 'sun-unknown':
      return 'sunrise and sunset are not known for today';
    case 'max-on':
      return 'it has been on for as long as it may at a stretch';
    case 'min-off':
      return 'it must stay off for a while first';
    case 'day-max-on':
      return 'it has been on for as long as it may in a day';
  }
}

/** The same of an output that gives no doses. */
export function contactReasonText(reason: Reason): string {
  switch (reason) {
    case 'switched-off':
      return 'deciding by itself is switched off';
    case 'below-stop':
      return 'the soil has been below the start limit and has not reached the stop limit yet';
    case 'not-below-start':
      return 'the soil has been at the stop limit and is not below the start limit yet';
    case 'above-stop':
      return 'the soil is at the stop limit or wetter';
    default:
      return reasonText(reason);
  }
}
