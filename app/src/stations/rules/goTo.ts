/** Brings a field of a program or an output into sight, with the cursor in it. @param from what was pressed: of several outputs on a sheet its own is meant */
export function goTo(field: string, from: HTMLElement): void {
  const owner = from.closest('[data-owner]') ?? document;
  const place = owner.querySelector<HTMLElement>(`[data-said="${field}"]`);
  const input = place?.querySelector<HTMLElement>('input, select, button');
  place?.scrollIntoView({ block: 'center', behavior: 'smooth' });
  input?.focus({ preventScroll: true });
  if (input instanceof HTMLInputElement && input.type !== 'checkbox') input.select();
}
