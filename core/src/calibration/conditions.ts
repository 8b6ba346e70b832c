/** Names of the schools of calibrating and of the conditions in which a probe is read. */
export const METHOD_IDS = [
  'air-water',
  'dry-soaked',
  'dry-right-soaked',
  'mixing',
  'pot',
  'meter',
  'feel',
  'factory',
  'drain',
  'cut-offs',
] as const;
export type MethodId = (typeof METHOD_IDS)[number];

export const CONDITIONS = [
  'air',
  'water',
  'dry soil',
  'just right',
  'soaked soil',
  'mixed soil',
  'pot on the scale',
  'beside the meter',
  'felt by hand',
  'known content',
  'drained a day',
  'plant hangs its leaves',
  'time to water',
  'watered enough',
] as const;
export type Condition = (typeof CONDITIONS)[number];
