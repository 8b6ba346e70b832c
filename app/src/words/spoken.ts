/**
 * Sentences in which words stand for settings: "give [120 ml], wait [15 min]". They are made as one text, with the settings marked in it, so that they read as
 * sentences everywhere; where they are shown, a marked word can be pressed.
 */
const OPEN = '\u0001';
const NAME_END = '\u0002';
const CLOSE = '\u0003';

/** Words that stand for a setting, by the name of its field. */
export const spoken = (field: string, words: string): string => `${OPEN}${field}${NAME_END}${words}${CLOSE}`;

export type SpokenPart = { readonly text: string; readonly field: string | null };

// oxlint-disable-next-line no-control-regex
const MARKED = /\u0001([^\u0002]*)\u0002([^\u0003]*)\u0003/g;

/** The sentence as it is read. */
export const plainText = (sentence: string): string => sentence.replace(MARKED, '$2');

/** The sentence in pieces, each with the field that it stands for or with none. */
export function partsOf(sentence: string): SpokenPart[] {
  const parts: SpokenPart[] = [];
  let from = 0;
  for (const match of sentence.matchAll(MARKED)) {
    const [whole, field = '', text = ''] = match;
    if (match.index > from) parts.push({ text: sentence.slice(from, match.index), field: null });
    parts.push({ text, field });
    from = match.index + whole.length;
  }
  if (from < sentence.length) parts.push({ text: sentence.slice(from), field: null });
  return parts;
}

/** With its first letter large, also where that is marked. */
export const capital = (sentence: string): string => {
  const at = sentence.startsWith(OPEN) ? sentence.indexOf(NAME_END) + 1 : 0;
  return sentence.slice(0, at) + sentence.charAt(at).toUpperCase() + sentence.slice(at + 1);
};
