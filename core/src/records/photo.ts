/** Photos of the log: small JPEGs, made small before they are kept. */

/** Longer side, px: enough to tell a yellow leaf, some 300 kB. */
export const LONGEST_PX = 1600;
/** A stored photo is never larger, bytes; what claims to be is none. */
export const MOST_PHOTO_BYTES = 4_000_000;

/** Whether bytes begin as a JPEG does and are not too many. */
export const isPhoto = (bytes: unknown): bytes is Uint8Array<ArrayBuffer> =>
  bytes instanceof Uint8Array &&
  bytes.length > 100 &&
  bytes.length <= MOST_PHOTO_BYTES &&
  bytes[0] === 0xff &&
  bytes[1] === 0xd8 &&
  bytes[2] === 0xff;

/** Width and height that a picture gets: as it is where it is small enough. */
export function shrunk(width: number, height: number): { readonly width: number; readonly height: number } {
  const factor = Math.min(1, LONGEST_PX / Math.max(width, height, 1));
  return { width: Math.max(1, Math.round(width * factor)), height: Math.max(1, Math.round(height * factor)) };
}
