/** The guards of a water line, each where it stands beside what it guards. They can be tightened and loosened within bounds, never switched off. */
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { countsPerPercent, percentUnit, type PercentScale } from '@plain-trowel/core/quantity/percentKind';
import { LineNumber } from './LineNumber.tsx';

/** How much and how often at most. */
export function DoseGuards({ line }: { line: WaterLine }) {
  return (
    <>
      <LineNumber
        line={line}
        field="maxRun"
        label="Maximum run"
        unit="s"
        value={line.maxRunS}
        least={1}
        most={3600}
        change={(maxRunS) => ({ maxRunS })}
      />
      <LineNumber
        line={line}
        field="dailyMax"
        label="Daily maximum"
        unit="ml"
        value={line.dailyMaxMl}
        least={1}
        most={1_000_000}
        change={(dailyMaxMl) => ({ dailyMaxMl })}
      />
      <LineNumber
        line={line}
        field="minInterval"
        label="Minimum interval"
        unit="s"
        value={line.minIntervalS}
        least={60}
        most={604_800}
        change={(minIntervalS) => ({ minIntervalS })}
      />
    </>
  );
}

/** Which readings are believed, and what a dose must show. */
export function ProbeGuards({ line, scale }: { line: WaterLine; scale: PercentScale | null }) {
  const { rise } = line;
  const kind = scale?.percentKind ?? 'span';
  // Tenths of a percent that one of the shown is worth: ten, or less where it is a count.
  const per = scale && kind === 'counts' ? Math.abs(10 / countsPerPercent(scale)) : 10;
  return (
    <>
      <LineNumber
        line={line}
        field="stale"
        label="Reading is stale after"
        unit="s"
        value={line.staleAfterS}
        least={5}
        most={86_400}
        change={(staleAfterS) => ({ staleAfterS })}
      />
      <LineNumber
        line={line}
        field="rise"
        label={kind === 'counts' ? 'A dose must move it by' : 'A dose must raise it by'}
        unit={percentUnit(kind)}
        value={rise.tenths}
        per={per}
        least={kind === 'counts' ? Math.ceil(5 / per) : 0.5}
        most={kind === 'counts' ? Math.floor(500 / per) : 50}
        whole={kind === 'counts'}
        {...(kind === 'counts' ? { decimals: 0 } : {})}
        change={(tenths) => ({ rise: { ...rise, tenths } })}
      />
      <LineNumber
        line={line}
        field="response"
        label="Within"
        unit="min"
        value={rise.responseS}
        per={60}
        least={0.5}
        most={1440}
        whole={false}
        change={(responseS) => ({ rise: { ...rise, responseS } })}
      />
      <LineNumber
        line={line}
        field={null}
        label="Or lock after"
        unit="doses"
        value={rise.times}
        least={1}
        most={20}
        change={(times) => ({ rise: { ...rise, times } })}
      />
    </>
  );
}
