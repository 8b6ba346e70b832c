import type { SideBySideRow } from '@plain-trowel/core/sideBySide/compare';

export const ODD_WORDS: Readonly<Record<NonNullable<SideBySideRow['odd']>, string>> = {
  air: 'its air is unlike the others',
  jar: 'its jar is unlike the others',
  span: 'it moves more or less than the others',
  direction: 'it runs the other way: plug or kind',
};
