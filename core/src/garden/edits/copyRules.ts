/** Limits and program of one plot for others: what is the plot's own (flow, tube, tank, outlets, trials) stays, and nothing is switched on by it. */
import { byId } from '../../quantity/byId.ts';
import type { Contradiction } from '../../control/programs/contradiction.ts';
import { broughtIn } from '../bind/contradictions.ts';
import { plotParts } from '../bind/plotParts.ts';
import type { Garden, WaterLine } from '../document/schema.ts';

export type NotCopied = {
  readonly plotId: string;
  readonly why:
    | { readonly kind: 'no-percent' }
    /** Its probe speaks of another kind of percent, in which the same number means another thing. */
    | { readonly kind: 'another-percent' }
    /** Its own flow or sensors contradict what would be copied. */
    | { readonly kind: 'contradicts'; readonly contradiction: Contradiction };
};

/** What of a line is its program. A follower's is not copied: it names a leader. */
const programOf = (line: WaterLine): Partial<WaterLine> | null =>
  line.program.kind === 'follower'
    ? null
    : {
        program: line.program,
        conditions: line.conditions,
        fallbackMl: line.fallbackMl,
        maxRunS: line.maxRunS,
        dailyMaxMl: line.dailyMaxMl,
        minIntervalS: line.minIntervalS,
        staleAfterS: line.staleAfterS,
        rise: line.rise,
      };

/** Copies limits, words and program of a plot to others; a plot for which they would be wrong is left as it is, and told. */
export function copyRules(
  garden: Garden,
  fromId: string,
  toIds: readonly string[],
): { readonly garden: Garden; readonly left: readonly NotCopied[] } {
  const from = plotParts(garden, fromId);
  if (!from) return { garden, left: [] };
  const program = from.line && programOf(from.line);
  const left: NotCopied[] = [];
  let next = garden;
  for (const plotId of toIds) {
    const to = plotParts(next, plotId);
    if (!to || plotId === fromId) continue;
    if (!to.fit || !from.fit) {
      left.push({ plotId, why: { kind: 'no-percent' } });
      continue;
    }
    if (to.fit.percentKind !== from.fit.percentKind) {
      left.push({ plotId, why: { kind: 'another-percent' } });
      continue;
    }
    const { limits, limitsSet, bandEdges, words } = from.plot;
    const changed: Garden = {
      ...next,
      plots: next.plots.map((plot) =>
        plot.id === plotId
          ? { ...plot, limits: { ...limits }, limitsSet, bandEdges: [...bandEdges], words }
          : plot,
      ),
      waterLines: next.waterLines.map((line) =>
        program && line.id === to.line?.id
          ? // What was armed by another program has to be armed again.
            { ...line, ...program, automatic: false }
          : line,
      ),
    };
    const [contradiction] = broughtIn(next, changed).filter(
      ({ owner }) =>
        byId(changed.waterLines, owner.id)?.plotId === plotId ||
        byId(changed.contacts, owner.id)?.plotId === plotId,
    );
    if (contradiction) left.push({ plotId, why: { kind: 'contradicts', contradiction } });
    else next = changed;
  }
  return { garden: next, left };
}
