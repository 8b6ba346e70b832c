/**
 * What a small display shows of a plot: a text with places for what is measured, in pages that turn. A two-line display of sixteen letters is the least that
 * makers use; what fits there fits everywhere.
 */
export const DISPLAY_PLACES = ['percent', 'raw', 'word', 'temperature', 'battery', 'tank'] as const;
export type DisplayPlace = (typeof DISPLAY_PLACES)[number];

/** What stands for each place now; null while it is not known, which shows as "?". */
export type DisplayValues = Readonly<Record<DisplayPlace, string | null>>;

/** Letters of a line and lines of a page; a text may have so many letters in all. */
export const DISPLAY_LETTERS = 16;
export const DISPLAY_LINES = 2;
export const DISPLAY_TEXT = 80;
/** Between pages. */
const PAGE = '|';
/** A page stands for so long, s. */
export const PAGE_S = 4;

export type DisplayPage = {
  readonly lines: readonly string[];
  /** Letters that found no room. */
  readonly lost: number;
};

/** A text's pages with its places filled. */
export const displayPages = (text: string, values: DisplayValues): readonly DisplayPage[] =>
  text.split(PAGE).map((page) => laidOut(filled(page, values).trim()));

const filled = (text: string, values: DisplayValues): string =>
  text.replaceAll(/\{(\w+)\}/g, (typed, place: string) => (isPlace(place) ? (values[place] ?? '?') : typed));

const isPlace = (name: string): name is DisplayPlace => (DISPLAY_PLACES as readonly string[]).includes(name);

/** Names in braces that stand for nothing. */
export const unknownPlaces = (text: string): readonly string[] =>
  [...text.matchAll(/\{(\w*)\}/g)].flatMap(([, name = '']) => (isPlace(name) ? [] : [name]));

/** Words over the lines of a page; a word longer than a line is broken. */
function laidOut(text: string): DisplayPage {
  const lines: string[] = [];
  let left = text;
  while (left !== '' && lines.length < DISPLAY_LINES) {
    const cut = left.length <= DISPLAY_LETTERS ? left.length : left.lastIndexOf(' ', DISPLAY_LETTERS);
    const end = cut > 0 ? cut : DISPLAY_LETTERS;
    lines.push(left.slice(0, end).trimEnd());
    left = left.slice(end).trimStart();
  }
  return { lines, lost: left.length };
}
