import type { CatalogueFileIssue } from '@plain-trowel/core/catalogue/catalogueFile';

/** What is wrong with a catalogue file, what it means, and what to do. */
export function catalogueFileText(issue: CatalogueFileIssue, fileName: string): string {
  const nothing = 'Nothing was taken in.';
  switch (issue.kind) {
    case 'not-json':
      return `${fileName} is not JSON. ${nothing} Choose a file that was exported under Catalogue.`;
    case 'not-a-catalogue':
      return `${fileName} is JSON, but not a catalogue. ${nothing} A garden file is opened from the first page.`;
    case 'id-twice':
      return `${fileName} has the entry "${issue.id}" twice. ${nothing} Give one of them another id.`;
    case 'field':
      return `${fileName}: ${issue.field} ${issue.message}${issue.more > 0 ? `, and ${issue.more} more` : ''}. ${nothing} Mend it and import again.`;
  }
}
