/** Boards by their traits: what a calibration depends on. A person may overrule either number. */
export type BoardTraits = { readonly traits: string; readonly adcBits: number; readonly supplyV: number };

export const BOARD_TRAITS: readonly [BoardTraits, ...BoardTraits[]] = [
  { traits: '3.3 V Wi-Fi board, 12-bit inputs', adcBits: 12, supplyV: 3.3 },
  { traits: '8-bit 5 V board, 10-bit inputs', adcBits: 10, supplyV: 5 },
  { traits: '3.3 V Wi-Fi board, one 10-bit input', adcBits: 10, supplyV: 3.3 },
  { traits: '32-bit 3.3 V board, 12-bit inputs', adcBits: 12, supplyV: 3.3 },
];
