/** How a probe can lie in the soil, with what speaks for it: makers disagree, and each way reads something else. */
import type { ProbeLies } from '@plain-trowel/core/garden/document/probeSchema';

export const LIES_WORDS: Readonly<Record<ProbeLies, { readonly name: string; readonly why: string }>> = {
  upright: {
    name: 'upright, from the surface',
    why: 'It reads the mean over its length; put in and taken out without digging, its upper end stays dry.',
  },
  'on edge': {
    name: 'level, on its narrow edge',
    why: 'It reads one depth, and water runs off it instead of standing on its flat side. It lies wholly in the soil: only with its electronics and its joint sealed.',
  },
  'in the middle': {
    name: 'upright, its middle at this depth',
    why: 'It reads where most roots drink, not the crust above them. It lies wholly in the soil: only with its electronics and its joint sealed.',
  },
};
