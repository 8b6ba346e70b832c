import type { Catalogue } from '@plain-trowel/core/catalogue/catalogue';
import { LINK_NAMES, type Topic } from '@plain-trowel/core/plan/rules';

/** What a candidate is called: a catalogue entry, two of them together, or a link. */
export const candidateName = (catalogue: Catalogue, id: string): string =>
  LINK_NAMES[id] ??
  id
    .split(' ')
    .map((one) => catalogue.get(one)?.name ?? one)
    .join(' + ');

export const TOPIC_NAMES: Readonly<Record<Topic, string>> = {
  probe: 'Probe',
  board: 'Board',
  link: 'Link',
  power: 'Power',
};
