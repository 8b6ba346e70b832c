/** What differs between two programs of a board, from the text of their settings: a field a line, so that a line is a setting. */
import { diffLines } from 'diff';

export type ChangedLine = { readonly kind: 'gone' | 'new' | 'same'; readonly text: string };

/** Lines that are alike are kept only next to a change. */
const CONTEXT = 2;

/** Null: the texts say the same, but for their comments. */
export function changedLines(before: string, after: string): readonly ChangedLine[] | null {
  const lines = diffLines(withoutHeading(before), withoutHeading(after)).flatMap(
    ({ value, added, removed }) =>
      value
        .replace(/\n$/, '')
        .split('\n')
        .map((text): ChangedLine => ({ kind: added ? 'new' : removed ? 'gone' : 'same', text })),
  );
  if (lines.every((line) => line.kind === 'same' || /^\s*(#|\/\/)/.test(line.text))) return null;
  return lines.filter(
    (line, at) =>
      line.kind !== 'same' ||
      lines.slice(Math.max(0, at - CONTEXT), at + CONTEXT + 1).some((one) => one.kind !== 'same'),
  );
}

/** Date, name and heading stand above the first setting, in either language. */
const withoutHeading = (text: string): string =>
  text.slice(Math.max(0, text.search(/^(ADC_BITS|\/\/ ---- What is read)/m)));

export type ChangedField = { readonly name: string; readonly before: string; readonly after: string };

/** Settings that have another value now: a line that went and the one that came in its place. */
export function changedFields(lines: readonly ChangedLine[]): readonly ChangedField[] {
  const gone = lines.flatMap((line) => (line.kind === 'gone' ? (fieldIn(line.text) ?? []) : []));
  const come = lines.flatMap((line) => (line.kind === 'new' ? (fieldIn(line.text) ?? []) : []));
  return gone.flatMap(({ name, value }) => {
    const at = come.findIndex((one) => one.name === name);
    const [now] = at < 0 ? [] : come.splice(at, 1);
    return now && now.value !== value ? [{ name, before: value, after: now.value }] : [];
  });
}

/** In C++ the name stands behind the value. */
function fieldIn(text: string): { readonly name: string; readonly value: string } | null {
  const behind = /^\s*([^\s{}"]+), {2}\/\/ ([a-z_]+)$/.exec(text);
  if (behind) return { name: behind[2] ?? '', value: behind[1] ?? '' };
  const match = /^\s*([a-z_]+|[A-Z_]+) ?= ?(.+?),?$/.exec(text);
  const value = match?.[2] ?? '';
  return match && !value.endsWith('(') && !value.endsWith('[') ? { name: match[1] ?? '', value } : null;
}
