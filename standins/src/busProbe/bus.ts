/** A bus with probes on it: every probe hears every frame, and two that answer at once spoil each other's answer. */
import { answerFrame, FrameCollector, type BusProbe } from './busProbe.ts';

export type BusAnswer = { readonly bytes: Uint8Array; readonly delayMs: number };

export class Bus {
  private readonly collector = new FrameCollector();

  constructor(public probes: readonly BusProbe[]) {}

  /** Bytes that a master has sent; the answers to every whole request in them, in order. */
  hear(bytes: Iterable<number>): BusAnswer[] {
    return this.collector.push(bytes).flatMap((frame) => {
      const answered = this.probes.map((probe) => answerFrame(probe, frame));
      this.probes = answered.map((one) => one.probe);
      const said = answered.flatMap(({ bytes: sent, delayMs }) => (sent ? [{ bytes: sent, delayMs }] : []));
      const [first, ...others] = said;
      if (!first) return [];
      if (others.length === 0) return [first];
      // Two drivers pull the same wires: what a receiver makes of it is neither answer.
      const spoiled = first.bytes.map(
        (byte, at) =>
          others.reduce((mixed, other) => mixed & (other.bytes[at] ?? 0xff), byte) ^
          (at % 3 === 2 ? 0x21 : 0),
      );
      return [{ bytes: spoiled, delayMs: first.delayMs }];
    });
  }
}
