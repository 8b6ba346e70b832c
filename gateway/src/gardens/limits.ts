/** A garden document larger than this is not taken, bytes; the app's own limit is below it. */
export const MOST_DOCUMENT_BYTES = 16_000_000;
