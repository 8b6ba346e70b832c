/** The one of a list that has this id; none for an id that names nothing. */
export const byId = <T extends { readonly id: string }>(
  list: readonly T[],
  id: string | null | undefined,
): T | undefined => list.find((one) => one.id === id);
