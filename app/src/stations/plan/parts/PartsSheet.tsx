import { buildCost, partsRows, yearCost } from '@plain-trowel/core/plan/partsList';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useView, Views } from '../../../ui/Views.tsx';
import { usePlan } from '../usePlan.ts';
import { AskView } from './AskView.tsx';
import { CatalogueView } from './CatalogueView.tsx';
import { ListView } from './ListView.tsx';
import { PowerView } from './PowerView.tsx';

const VIEWS = ['ask', 'list', 'power', 'catalogue'] as const;

/** What to buy: questions and suggestions, the list with its cost, the supply budget, the catalogue behind it. */
export default function PartsSheet() {
  const plan = usePlan();
  const view = useView(VIEWS);
  const { wiring, catalogue } = plan;
  const rows = partsRows(wiring, catalogue, plan.plan.money, plan.plan.supply.everyS, plan.plan.drawer);
  const { currency } = plan.plan.money;
  const build = buildCost(rows, currency);
  const year = yearCost(rows, currency);
  const money = (value: number) => `${currency} ${formatNumber(value, 2)}`;
  return (
    <>
      <header className="mb-1 border-b border-ink pb-2.5">
        <h1>{rows.length === 0 ? 'What to buy' : `${wiring.parts.length} parts on the list`}</h1>
        {rows.length === 0 ? (
          <p className="text-soft">
            Answer what you can; the best candidate for each topic is shown below, with its reasons.
          </p>
        ) : (
          <p>
            <WorkedNumber
              id="build"
              worked={build.worked}
              shown={money(build.worked.value)}
              lead={view === 'list'}
              className="font-semibold"
            />{' '}
            to build,{' '}
            <WorkedNumber
              id="year"
              worked={year.worked}
              shown={`${money(year.worked.value)} a year`}
              className="font-semibold"
            />
            {build.missing > 0 && (
              <span className="text-soft">
                , {build.missing} {build.missing === 1 ? 'line' : 'lines'} without a price
              </span>
            )}
            .
          </p>
        )}
      </header>
      <Views
        label="Views of Parts"
        open={view}
        views={[
          { id: 'ask', name: 'Questions' },
          { id: 'list', name: 'List' },
          { id: 'power', name: 'Power' },
          { id: 'catalogue', name: 'Catalogue' },
        ]}
      />
      {view === 'ask' && <AskView plan={plan} />}
      {view === 'list' && <ListView plan={plan} rows={rows} />}
      {view === 'power' && <PowerView plan={plan} />}
      {view === 'catalogue' && <CatalogueView plan={plan} />}
    </>
  );
}
