import { EXCEPTIONS } from '@plain-trowel/core/bus/frame';
import type { Meaning } from '@plain-trowel/core/bus/indication';
import type { BusSnapshot } from '../links/busDesk.ts';

/** What went wrong on the bus, and the next thing to do. */
export function busIssueText(issue: NonNullable<BusSnapshot['issue']>): string {
  switch (issue.kind) {
    case 'no-answer':
      return 'No answer. In this order: the probe’s supply (5 V or more), A and B exchanged, its address, its speed.';
    case 'too-short':
      return `Only ${issue.got} of ${issue.wanted} bytes came. A poor contact, or another speed.`;
    case 'wrong-crc':
      return 'The check value does not hold: noise on the line, two probes with one address, or another speed.';
    case 'echo':
      return 'Only the question came back: the adapter hears itself and the probe keeps quiet. Check the probe’s supply and address.';
    case 'wrong-address':
      return `Address ${issue.got} answered in place of ${issue.wanted}. Look for probes, and give each its own address.`;
    case 'wrong-function':
      return `The answer is to function ${issue.got}, which was not asked. Try again; if it stays, the probe speaks otherwise.`;
    case 'exception':
      return `The probe refuses: ${EXCEPTIONS[issue.code] ?? `reason ${issue.code}, not in the standard`}. Choose the register map that its sheet shows.`;
    case 'not-confirmed':
      return 'The probe confirmed something else than was written. Read it again before you trust it.';
    case 'port-gone':
      return 'The adapter was unplugged. Nothing read so far is lost; plug it in and connect again.';
  }
}

export const MEANING_WORDS: Readonly<Record<Meaning, string>> = {
  measured: 'measured',
  indication: 'an indication only',
  'too-dry': 'means nothing: too dry here',
  'moisture-unknown': 'an indication only; its moisture is not known',
};
