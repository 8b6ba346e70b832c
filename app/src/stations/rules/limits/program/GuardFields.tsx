import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { countsPerPercent, percentUnit, type PercentScale } from '@plain-trowel/core/quantity/percentKind';
import { LineNumber } from './LineNumber.tsx';

/** The guards of a water line. They can be tightened and loosened within bounds, never switched off. */
export function GuardFields({ line, scale }: { line: WaterLine; scale: PercentScale | null }) {
  const { rise } = line;
  const kind = scale?.percentKind ?? 'span';
  // Tenths of a percent that one of the shown is worth: ten, or less where it is a count.
  const per = scale && kind === 'counts' ? Math.abs(10 / countsPerPercent(scale)) : 10;
  return (
    <section aria-label="Guards" className="mt-4 border-t border-rule pt-3">
      <h2>Guards, in the board itself</h2>
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
        They hold whatever the program wants, and an order by hand too. They can be made tighter or looser,
        never switched off. Besides these: outputs off at boot and on any error, a low or unknown tank stops,
        an old or impossible reading never waters, and only one line of a board runs at a time, so that the
        currents of two pumps never add up.
      </p>
      <div className="mt-3 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4">
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
        <span className="max-sm:hidden" />
        <LineNumber
          line={line}
          field={null}
          label="Pump gives"
          unit="ml/s"
          value={line.flowMlPerS}
          least={0.1}
          most={1000}
          whole={false}
          decimals={2}
          change={(flowMlPerS) => ({ flowMlPerS })}
        />
        <LineNumber
          line={line}
          field={null}
          label="Tube fills in"
          unit="s"
          value={line.tubeS}
          least={0}
          most={600}
          whole={false}
          change={(tubeS) => ({ tubeS })}
        />
      </div>
    </section>
  );
}
