/**
 * A number that a person has pointed at in a line that nothing else reads: wherever the same text stands before a number again, that number is it. Digits in the text before may
 * be others: "Error 3 at 512 raw 498".
 */

/** What stands before the number, each run of digits as "#"; and what the number is called. */
export type PickedNumber = { readonly before: string; readonly name: string };

const NUMBER = /[+-]?\d+(?:\.\d+)?/g;
/** A line longer than this is no reading; its numbers are not offered. */
export const MOST_PICKED_CHARS = 200;

export type NumberInLine = {
  readonly text: string;
  readonly from: number;
  readonly to: number;
  readonly before: string;
};

/** Every number of a line, in order, with what stands before it. */
export function numbersIn(line: string): NumberInLine[] {
  const text = line.slice(0, MOST_PICKED_CHARS);
  return [...text.matchAll(NUMBER)].map((match) => {
    // A hyphen between words and digits is no sign.
    const isSigned = /^[+-]/.test(match[0]) && /[\p{L}\p{N}]$/u.test(text.slice(0, match.index));
    const from = match.index + (isSigned ? 1 : 0);
    const to = match.index + match[0].length;
    return { text: text.slice(from, to), from, to, before: text.slice(0, from).replace(/\d+/g, '#') };
  });
}

/** A name for a number that was pointed at: the last word before it, else "number". */
export const nameOfPicked = ({ before }: NumberInLine): string =>
  /([\p{L}_][\p{L}\p{N}_]*)[^\p{L}]*$/u.exec(before)?.[1]?.slice(0, 40) ?? 'number';

/** What was pointed at, in a line; empty where its text does not stand there. */
export function readPicked(
  line: string,
  picked: readonly PickedNumber[],
): { readonly name: string; readonly value: number }[] {
  if (picked.length === 0 || line.length > MOST_PICKED_CHARS) return [];
  const numbers = numbersIn(line);
  return picked.flatMap(({ before, name }) => {
    const found = numbers.find((one) => one.before === before);
    return found ? [{ name, value: Number(found.text) }] : [];
  });
}
