/**
 * Check value of a Modbus RTU frame, 0..65535; sent low byte first.
 * Source: Modbus over Serial Line V1.02, 6.2.2: polynomial x¹⁶ + x¹⁵ + x² + 1, reflected (0xA001), all bits set at the start.
 */
export function crc16(bytes: Iterable<number>): number {
  let crc = 0xffff;
  for (const byte of bytes) {
    crc ^= byte & 0xff;
    for (let bit = 0; bit < 8; bit += 1) crc = crc & 1 ? (crc >> 1) ^ 0xa001 : crc >> 1;
  }
  return crc;
}

/** The bytes with their check value behind them. */
export function withCrc(bytes: readonly number[]): Uint8Array {
  const crc = crc16(bytes);
  return Uint8Array.from([...bytes, crc & 0xff, crc >> 8]);
}

/** True when the last two bytes are the check value of those before. */
export const crcHolds = (frame: Uint8Array): boolean =>
  frame.length >= 3 &&
  crc16(frame.subarray(0, -2)) === (frame[frame.length - 2] ?? 0) + 256 * (frame[frame.length - 1] ?? 0);
