/** What a part on I2C answers: the bytes of a value, as its sheet has them. */
import type { I2cRead } from '@plain-trowel/core/catalogue/i2cTalk';

const hexOf = (bytes: readonly number[]): string =>
  bytes.map((one) => one.toString(16).padStart(2, '0')).join('');

/** Whether what was written to it last asks for this. @param written writes since it was last read, as hexadecimal digits between slashes */
export function isAskedBy(written: string, { ask, from }: I2cRead): boolean {
  const writes = written.split('/');
  return [from, ask].filter((bytes) => bytes.length > 0).every((bytes) => hexOf(bytes) === writes.pop());
}

/** The answer that holds a value. @param value in the unit that the board prints */
export function i2cBytes(of: I2cRead, value: number): Uint8Array {
  const whole = Math.round(((value * 10 ** of.decimals - of.plus) * of.per) / of.times);
  const most = 256 ** of.bytes;
  const [least, highest] = of.signed ? [-most / 2, most / 2 - 1] : [0, most - 1];
  const word = (Math.min(highest, Math.max(least, whole)) + most) % most;
  const bytes = of.bytes === 1 ? [word] : [Math.floor(word / 256), word % 256];
  const answer = new Uint8Array(of.read);
  answer.set(of.order === 'high first' ? bytes : bytes.reverse(), of.at);
  if (of.check === 'each two')
    for (let at = 0; at + 2 < of.read; at += 3)
      answer[at + 2] = checkOf(answer[at] ?? 0, answer[at + 1] ?? 0);
  return answer;
}

/** The remainder by x⁸ + x⁵ + x⁴ + 1, begun with all ones, by long division of the whole 24 bits. */
export function checkOf(first: number, second: number): number {
  let rest = ((first ^ 0xff) << 16) | (second << 8);
  for (let bit = 23; bit >= 8; bit -= 1) if (((rest >> bit) & 1) === 1) rest ^= 0x131 << (bit - 8);
  return rest & 255;
}
