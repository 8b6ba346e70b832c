/** Paper for the bench: sizes in millimetres, text broken by an estimate of its width, rows dealt out to pages. */

export const PAPERS = { A4: { width: 210, height: 297 }, Letter: { width: 215.9, height: 279.4 } } as const;
export type PaperName = keyof typeof PAPERS;
export const MARGIN_MM = 12;
/** Room at the top for the head of the sheet, and at the bottom for its foot, mm. */
export const HEAD_MM = 26;
export const FOOT_MM = 16;

/** Mean width of a letter over the size of the type, for the face that ships with the program. A little wide, so that nothing runs over. */
const LETTER_SHARE = 0.48;

/** Lines of a text that fit into `widthMm` at type of `sizeMm`. A word too long for a line stands alone and is cut with an ellipsis. */
export function wrapText(text: string, widthMm: number, sizeMm: number): string[] {
  const most = Math.max(1, Math.floor(widthMm / (sizeMm * LETTER_SHARE)));
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter((one) => one !== '')) {
    const next = line === '' ? word : `${line} ${word}`;
    if (next.length <= most) line = next;
    else {
      if (line !== '') lines.push(line);
      line = word.length <= most ? word : `${word.slice(0, most - 1)}…`;
    }
  }
  return line === '' ? lines : [...lines, line];
}

/**
 * Deals blocks of known height out to pages of a paper; each block is put whole on one page. A block taller than a page has one to itself.
 * @param belowMm room that is kept free above the foot
 */
export function dealPages<Block extends { readonly heightMm: number }>(
  blocks: readonly Block[],
  paper: PaperName,
  belowMm = 0,
): { block: Block; topMm: number }[][] {
  const bottom = PAPERS[paper].height - FOOT_MM - belowMm;
  const pages: { block: Block; topMm: number }[][] = [[]];
  let top = HEAD_MM;
  for (const block of blocks) {
    if (top + block.heightMm > bottom && (pages.at(-1)?.length ?? 0) > 0) {
      pages.push([]);
      top = HEAD_MM;
    }
    pages.at(-1)?.push({ block, topMm: top });
    top += block.heightMm;
  }
  return pages;
}
