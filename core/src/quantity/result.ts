/** A result a person's honest use can turn out either way; a throw is kept for our own mistakes. */
export type Result<T, Issue> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly issue: Issue };

export const ok = <T>(value: T) => ({ ok: true, value }) as const;
export const fail = <Issue>(issue: Issue) => ({ ok: false, issue }) as const;
