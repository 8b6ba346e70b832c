/** Hands a text or picture to the person as a file. */
export function download(fileName: string, content: string | Blob, type: string): void {
  const address = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = fileName;
  link.click();
  // The browser has taken hold of the content by the next turn.
  setTimeout(() => URL.revokeObjectURL(address), 1000);
}

/** A file name from a title: "The Marigold Hare" as "the-marigold-hare". */
export const fileNameOf = (title: string): string =>
  title
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'garden';
