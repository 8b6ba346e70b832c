import type { Remedy } from '@plain-trowel/core/garden/document/mend';
import { placeText } from '../../words/gardenFaultText.ts';

/** What a press on a remedy does. */
export function remedyText(remedy: Remedy): string {
  switch (remedy.kind) {
    case 'set': {
      const text =
        typeof remedy.value === 'string' ? `"${remedy.value.slice(0, 20)} …"` : String(remedy.value);
      return `Make it ${text}`;
    }
    case 'keep-first':
      return `Keep the first ${remedy.most}, leave the rest out`;
    case 'remove':
      return typeof remedy.path.at(-1) === 'number'
        ? `Leave ${placeText(remedy)} out`
        : `Leave the field "${String(remedy.path.at(-1))}" out`;
  }
}
