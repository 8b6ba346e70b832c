/** Two settings of a water line that disagree. */

import type { PercentKind } from '../../quantity/percentKind.ts';

/** Fields of a line's form. */
export type LineField =
  | 'dose'
  | 'fallback'
  | 'pulses'
  | 'soak'
  | 'rest'
  | 'interval'
  | 'slots'
  | 'leader'
  | 'maxRun'
  | 'dailyMax'
  | 'minInterval'
  | 'stale'
  | 'rise'
  | 'response'
  | 'hours'
  | 'dark'
  | 'air'
  | 'soilTemperature'
  | 'rain'
  | 'battery'
  | 'skip'
  | 'tank'
  | 'program'
  | 'limits'
  // Of a contact
  | 'cell'
  | 'sun'
  | 'mostOn'
  | 'dayMost';

export type Contradiction = {
  readonly kind:
    | 'dose-over-run'
    | 'dose-over-day'
    | 'pulses-over-day'
    | 'run-over-interval'
    | 'soak-under-interval'
    | 'soak-under-response'
    | 'rest-under-soak'
    | 'interval-under-interval'
    | 'slots-too-close'
    | 'slot-outside-hours'
    | 'no-hours'
    | 'stale-under-logging'
    | 'rise-under-noise'
    | 'leader-missing'
    | 'leader-follows'
    | 'leader-never-runs'
    | 'no-probe'
    | 'no-sensor'
    | 'which-sensor'
    | 'tank-unread'
    /** Limits that nobody has set, in a kind of percent in which such numbers mean nothing. */
    | 'limits-unset'
    /** Limits where the calibration does not read, or the soil cannot be: tenths. */
    | 'limits-beyond'
    /** A light that is to go on in the dark, and out at a value that is no brighter: as read. */
    | 'cell-crossed'
    | 'no-latitude'
    /** Hours longer than the light may be lit: s. */
    | 'hours-over-most';
  /** The field that is at fault first, and the one it disagrees with. */
  readonly at: LineField;
  readonly against: LineField | 'logging' | 'noise' | 'probe' | 'sensor' | 'calibration';
  /** What stands at both, in the unit of the fields. */
  readonly value: number;
  readonly limit: number;
  /** What those are a percent of, where they are one. */
  readonly percentKind?: PercentKind;
};

/** A list of one, or of none when it is not so. */
export const found = (
  isSo: boolean,
  kind: Contradiction['kind'],
  at: LineField,
  against: Contradiction['against'],
  value = 0,
  limit = 0,
): Contradiction[] => (isSo ? [{ kind, at, against, value, limit }] : []);
