/**
 * Why the engine does what it does: one closed list for every start, stop and refusal. The words for them stand with the screen; an index in this
 * list is what a board prints, so entries are only ever added at its end.
 */
export const REASONS = [
  // Starts
  'below-start',
  'timer',
  'dry-enough',
  'follows',
  'fallback',
  'order',
  // Ordinary ends of a run
  'dose-done',
  'above-stop',
  'wet-veto',
  'stop-order',
  // Guards
  'max-run',
  'daily-max',
  'min-interval',
  'tank-low',
  'tank-unknown',
  'stale',
  'implausible',
  'no-reading',
  'unsettled',
  'waiting-for-rise',
  'locked',
  'other-line-runs',
  'clock-went-back',
  'not-calibrated',
  // Programs at rest
  'not-below-start',
  'soaking',
  'pulses-used',
  'dose-interval',
  'not-due',
  'too-wet',
  'leader-rests',
  'alert-only',
  'switched-off',
  'no-line',
  // Conditions
  'clock-unknown',
  'outside-hours',
  'not-dark',
  'light-unknown',
  'air-warm',
  'air-unknown',
  'soil-cold',
  'soil-temperature-unknown',
  'rain',
  'rain-unknown',
  'battery-low',
  'battery-unknown',
  // Orders
  'already-runs',
  // Later additions
  'settings-changed',
  'below-stop',
  'out-of-soil',
  'bad-order',
  'unsound-settings',
  'contradiction',
  'skip-switch',
  'skip-unknown',
  // Contacts
  'in-hours',
  'dark',
  'sun-unknown',
  'max-on',
  'min-off',
  'day-max-on',
] as const;
export type Reason = (typeof REASONS)[number];
