/** One true sentence for each thing that can be wrong with the browser's storage: what is so, and what to do. */
import type { Persistence } from '../data/keeping.ts';
import type { StorageProblem } from '../data/storageProblem.ts';
import type { LeftOut } from '../data/wholeRecord.ts';
import { countedText, isOne } from './countedText.ts';

export function storageText(problem: StorageProblem): string {
  switch (problem) {
    case 'full':
      return 'The disk is full, or this site has used all the room the browser gives it. Free some disk space.';
    case 'closed':
      return 'The browser closed its storage while this page was open. It is being opened again; if this stays, load the page again.';
    case 'gone':
      return 'This garden is no longer in the browser’s storage: its data was cleared, or it was removed in another tab.';
    case 'newer':
      return 'Another tab runs a newer Plain Trowel. Load this page again.';
    case 'blocked':
      return 'The browser gives this page no storage, as in some private windows. Nothing can be kept here. Allow this site to store data, or use another window.';
    case 'no-answer':
      return 'The browser’s storage does not answer. Close other tabs of Plain Trowel; if that does not help, restart the browser.';
    case 'failed':
      return 'The browser’s storage could not be read or written; its own files may be damaged. Save a backup, then restart the browser.';
  }
}

/** "3 readings and 1 event wait in this page." Empty while nothing waits. */
export function waitingText(waiting: { readonly readings: number; readonly events: number }): string {
  const counted = countedText(waiting);
  if (counted === '') return '';
  const verbs = isOne(waiting) ? ['waits', 'is'] : ['wait', 'are'];
  return `${counted} ${verbs[0]} in this page and ${verbs[1]} tried again every two seconds.`;
}

/** What the browser says of this garden's data when the disk runs full. */
export function persistenceText(persistence: Persistence): string {
  switch (persistence) {
    case 'granted':
      return 'The browser has promised to keep this site’s data when the disk runs full.';
    case 'not-granted':
      return 'The browser has not promised to keep this site’s data: it may clear it when the disk runs full.';
    case 'unknown':
      return 'This browser does not say whether it keeps this site’s data when the disk runs full.';
  }
}

/** Told once, with the first reading of a real probe. */
export const firstRealText = (persistence: Persistence): string =>
  `The first reading of a real probe is in the log. Readings cannot be made again, so the browser was asked to keep them. ${persistenceText(persistence)} Save a backup now and then (garden menu).`;

/** What a file does not hold because it could not be read, to go on with after “but”; null where it holds everything. */
export function leftOutText(leftOut: LeftOut): string | null {
  const counted = countedText(leftOut);
  if (counted === '') return null;
  const where = leftOut.days > 0 ? '; the log names the days' : '';
  return `${counted} could not be read and ${isOne(leftOut) ? 'is' : 'are'} not in it. Nothing was removed from the browser${where}.`;
}
