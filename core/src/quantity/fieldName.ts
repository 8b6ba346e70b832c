/** Names of fields and messages of the schema library, in the form people read. */

/** `["plots", 1, "name"]` as `plots[1].name`. */
export const fieldName = (path: readonly PropertyKey[]): string =>
  path
    .map((part, at) =>
      typeof part === 'number' ? `[${part}]` : at === 0 ? String(part) : `.${String(part)}`,
    )
    .join('') || 'file';

export const plainMessage = (message: string): string =>
  message.replace(/^Invalid input: /, '').replace(/^Too (big|small): /, '');
