/** Names from people in a program: whatever they hold, they end no comment, no string and no line. */

// oxlint-disable-next-line no-control-regex
const BREAKS = /[\u0000-\u001f\u007f-\u009f\u2028\u2029\ufeff\\]/g;

/** For a comment to the end of a line, in either language: one line, without what would go on in the next or end a comment. */
export const forComment = (text: string): string =>
  text
    .replace(BREAKS, ' ')
    .replace(/\*\//g, '* /')
    .replace(/\/\*/g, '/ *')
    .replace(/\?\?/g, '? ?')
    .replace(/"""|'''/g, '"')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 100);

const NAME = 40;

/** For a string in double quotes: letters of plain ASCII; everything else becomes "?". @param most letters */
export const forString = (text: string, most = NAME): string =>
  forComment(text.normalize('NFKD').replace(/\p{M}/gu, ''))
    .replace(/[^ -~]/g, '?')
    .replace(/"/g, "'")
    .replace(/\?\?+/g, '?')
    .slice(0, most);

/** An id of the garden as one word, as a board keeps and prints it. */
export const wordOf = (id: string): string => id.replace(/[^A-Za-z0-9_-]/g, '_').slice(0, 60);
