/** Every fault of a stream or of its lines: what is seen, and the next thing to do. */
import type { LineFault } from '@plain-trowel/core/faults/lineFaults';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';

export type FaultWords = { readonly name: string; readonly says: string; readonly next: string };

const counts = (value: number) => `${formatNumber(Math.round(Math.abs(value)))} counts`;

/** @param time writes a time of day */
export function streamFaultText(fault: StreamFault, time: (ms: number) => string): FaultWords {
  switch (fault.kind) {
    case 'open':
      return {
        name: 'Open',
        says:
          fault.sinceMs === null
            ? 'The reading sits at the upper end of the scale: nothing is connected to the input, or a wire is cut.'
            : `Unplugged at ${time(fault.sinceMs)}: the reading jumped to the upper end of the scale and stays there.`,
        next: 'Push the plug in until it clicks, then follow the signal wire to the board.',
      };
    case 'short':
      return {
        name: 'Shorted',
        says:
          fault.sinceMs === null
            ? 'The reading sits at zero: the input is shorted to ground, or the probe has no supply.'
            : `Since ${time(fault.sinceMs)} the reading sits at zero: a short to ground, or the supply is gone.`,
        next: 'Measure the supply at the probe; then look for bare wires that touch.',
      };
    case 'clipped':
      return {
        name: 'Cut off',
        says: `${formatNumber(100 * fault.shareFrac)} in 100 readings are cut off at the ${fault.end} of the scale, so what lies beyond cannot be told.`,
        next: 'The probe gives more voltage than the input can read: put a divider in front, or choose a wider range.',
      };
    case 'stuck':
      return {
        name: 'Stuck',
        says: `Exactly ${formatNumber(fault.counts)} for ${formatDuration(fault.forS)}, though this probe had noise before. The board repeats an old number.`,
        next: 'Press the board’s reset. If it stays, the program does not read the input again.',
      };
    case 'hum':
      return {
        name: 'Interference',
        says: `A ripple of ± ${counts(fault.amplitudeCounts)} each ${formatNumber(fault.periodS, 1)} s lies on the reading.`,
        next: 'Lead the cable away from pumps, chargers and mains; twist it with its ground; put 100 nF at the input.',
      };
    case 'leap':
      return {
        name: 'Sudden offset',
        says: `At ${time(fault.atMs)} it leapt by ${counts(fault.byCounts)} at once and stayed. Soil does not do that by itself.`,
        next: 'If you poured or moved the probe, all is well. If not: is the connector wet? Dry it, seal it, and keep water below the line.',
      };
    case 'jumping':
      return {
        name: 'Jumping',
        says: `${fault.leaps} leaps to and fro of about ${counts(fault.byCounts)}.`,
        next: 'Poor contact, or water in the plug. Wiggle the plug: if the number follows, make that joint again and keep it dry.',
      };
    case 'beyond-wet':
      return {
        name: 'Wetter than water',
        says: `The reading lies ${formatNumber(100 * fault.byFrac)} % of the span beyond the wet reference. No soil is wetter than water.`,
        next: 'Water stands above the printed line, or the connector is wet. Lift it, dry it, seal it; then repeat the wet reference.',
      };
    case 'daily-wave':
      return {
        name: 'Daily wave',
        says: `A wave of ± ${counts(fault.amplitudeCounts)} comes back each day. That is temperature, not water.`,
        next: 'Compare readings of the same hour, shade the part above the soil, or calibrate at two temperatures.',
      };
  }
}

export function lineFaultText(fault: LineFault): FaultWords {
  if (fault.kind === 'garbage')
    return {
      name: 'Wrong speed',
      says: 'What comes in is no text: the board sends at another speed than the port listens at.',
      next:
        fault.likelyBaud === null
          ? 'Look up the speed in the board’s program and connect with that.'
          : `It looks like ${formatNumber(fault.likelyBaud)} baud. Connect again with that speed.`,
    };
  const since = `No line for ${formatDuration(fault.forS)}.`;
  switch (fault.before) {
    case 'lines':
      return {
        name: 'Silent',
        says: `${since} Lines came before, so the port and the speed were right.`,
        next: 'In this order: is the cable still in at both ends; has the board lost its power; is it asleep; does its program stand still (press reset).',
      };
    case 'bytes':
      return {
        name: 'Silent',
        says: `${since} Bytes come, and never the end of a line.`,
        next: 'Print each reading with a line end. If the program does so, try another speed.',
      };
    case 'never':
      return {
        name: 'Silent',
        says: `${since} Nothing has come since the port was opened.`,
        next: 'In this order: another port; a cable that carries data and not only power; the speed; a common ground; is the program on the board at all.',
      };
  }
}
