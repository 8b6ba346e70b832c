import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** SHA-256 of a text as UTF-8, 64 hexadecimal digits; also in pages that were not loaded securely, where the browser gives none. */
export const sumOf = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));
