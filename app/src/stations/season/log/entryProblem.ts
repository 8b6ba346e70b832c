import type { EntryIssue } from '@plain-trowel/core/records/entry';

/** Beside which field a sentence stands. */
export type ProblemOf = { readonly field: 'amount' | 'text' | 'when'; readonly text: string };

export function problemText({ kind }: EntryIssue, text: string): ProblemOf {
  if (kind === 'no-amount' || kind === 'amount-out') return { field: 'amount', text };
  return { field: kind === 'no-text' ? 'text' : 'when', text };
}
