import { Scroll } from '../../../ui/Scroll.tsx';
import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { clsx } from 'clsx';
import { partsCsv, type PartsRow } from '@plain-trowel/core/plan/partsList';
import { withPieces } from '@plain-trowel/core/plan/suggest';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { download, fileNameOf } from '../../../data/download.ts';
import { Button } from '../../../ui/Button.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Field } from '../../../ui/Field.tsx';
import type { usePlan } from '../usePlan.ts';

type PlanTools = ReturnType<typeof usePlan>;
type MoneyList = 'prices' | 'spares' | 'lives';

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});
const helper = createColumnHelper<typeof features, PartsRow>();
/** Numbers sort as numbers; what is unknown comes last in both directions. */
const last = { sortFn: 'basic', sortUndefined: 'last' } as const;
const columns = helper.columns([
  helper.accessor('name', { header: 'Part', sortFn: 'alphanumeric' }),
  helper.accessor('count', { header: 'Count', sortFn: 'basic' }),
  helper.accessor('spares', { header: 'Spares', sortFn: 'basic' }),
  helper.accessor('have', { header: 'Have', sortFn: 'basic' }),
  helper.accessor('buy', { header: 'To buy', sortFn: 'basic' }),
  helper.accessor((row) => row.price ?? undefined, { id: 'price', header: 'Unit price', ...last }),
  helper.accessor((row) => row.lifeYears ?? undefined, { id: 'life', header: 'Lasts', ...last }),
  helper.accessor((row) => row.cost ?? undefined, { id: 'cost', header: 'Cost', ...last }),
  helper.accessor((row) => row.perYear ?? undefined, { id: 'perYear', header: 'A year', ...last }),
]);

/** The list to buy, with a person's own prices, spares and lives. */
export function ListView({ plan, rows }: { plan: PlanTools; rows: readonly PartsRow[] }) {
  const { currency } = plan.plan.money;
  const table = useTable({ features, columns, data: rows, getRowId: (row) => row.key });
  const keep = (list: MoneyList, key: string, value: number | null) =>
    void plan.changePlan(`${list} of ${key}`, ({ money }) => {
      const rest = Object.fromEntries(Object.entries(money[list]).filter(([other]) => other !== key));
      return { money: { ...money, [list]: value === null ? rest : { ...rest, [key]: value } } };
    });
  const putAway = (key: string, count: number) =>
    void plan.changePlan(`in the drawer: ${key}`, ({ drawer }) => ({
      drawer: withPieces(drawer, key, count),
    }));
  if (rows.length === 0)
    return (
      <p>
        Every part will be listed here with its count, price and cost per year. First lay the parts out: under{' '}
        <b className="font-semibold">Questions</b>, or add them one by one under Wiring.
      </p>
    );
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
        <CurrencyField
          value={currency}
          onKeep={(kept) =>
            void plan.changePlan('currency', ({ money }) => ({ money: { ...money, currency: kept } }))
          }
        />
        <Button
          onClick={() =>
            download(`${fileNameOf(plan.garden.name)}.parts.csv`, partsCsv(rows, currency), 'text/csv')
          }
        >
          Export as CSV
        </Button>
      </div>
      <Scroll label="Parts to buy">
        <table>
          <thead>
            {table.getHeaderGroups().map((group) => (
              <tr key={group.id}>
                {group.headers.map((header) => {
                  const sorted = header.column.getIsSorted();
                  return (
                    <th
                      key={header.id}
                      className={header.id === 'name' ? undefined : 'text-right'}
                      aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                    >
                      <button
                        type="button"
                        className="press font-semibold"
                        onClick={header.column.getToggleSortingHandler()}
                      >
                        <table.FlexRender header={header} />
                        {(header.id === 'price' || header.id === 'cost') && ` ${currency}`}
                        {header.id === 'perYear' && ` ${currency}`}
                        {header.id === 'life' && ' years'}
                        <span aria-hidden className={clsx('ml-1 inline-block w-2', !sorted && 'opacity-0')}>
                          {sorted === 'desc' ? '↓' : '↑'}
                        </span>
                      </button>
                    </th>
                  );
                })}
              </tr>
            ))}
          </thead>
          <tbody>
            {table.getRowModel().rows.map(({ original }) => (
              <Row key={original.key} row={original} keep={keep} putAway={putAway} />
            ))}
          </tbody>
        </table>
      </Scroll>
      <p className="mt-3 max-w-[70ch] text-[13.5px] text-soft">
        A cheap fork that lasts a season can cost more per year than a dear probe. Lives are makers’
        experience; set your own. A spare is a replacement bought early and does not count again per year.
      </p>
    </>
  );
}

function Row({
  row,
  keep,
  putAway,
}: {
  row: PartsRow;
  putAway: (key: string, count: number) => void;
  keep: (list: MoneyList, key: string, value: number | null) => void;
}) {
  const money = (value: number | null) => (value === null ? '–' : formatNumber(value, 2));
  return (
    <tr>
      <td>
        {row.name}
        <span className="block text-[12.5px] text-soft">{row.labels.join(', ')}</span>
      </td>
      <td className="num text-right">
        {formatNumber(row.count, row.unit === 'm' ? 1 : 0)}
        {row.unit === 'm' && ' m'}
      </td>
      <td className="text-right">
        <CellNumber
          label={`Spares of ${row.name}`}
          value={row.spares}
          least={0}
          most={1000}
          decimals={0}
          onKeep={(value) => keep('spares', row.key, value)}
        />
      </td>
      <td className="text-right">
        <CellNumber
          label={`${row.name} in the drawer`}
          value={row.have}
          least={0}
          most={1000}
          decimals={0}
          onKeep={(value) => putAway(row.key, value ?? 0)}
        />
      </td>
      <td className="num text-right">{formatNumber(row.buy, row.unit === 'm' ? 1 : 0)}</td>
      <td className="text-right">
        <CellNumber
          label={`Unit price of ${row.name}`}
          value={row.price}
          least={0}
          most={1e7}
          decimals={2}
          onKeep={(value) => keep('prices', row.key, value)}
        />
      </td>
      <td className="text-right">
        <CellNumber
          label={`Life of ${row.name} in years`}
          value={row.lifeYears}
          least={0.01}
          most={100}
          decimals={1}
          onKeep={(value) => keep('lives', row.key, value)}
        />
      </td>
      <td className="num text-right">{money(row.cost)}</td>
      <td className="num text-right">{money(row.perYear)}</td>
    </tr>
  );
}

function CurrencyField({ value, onKeep }: { value: string; onKeep: (value: string) => void }) {
  return (
    <Field label="Currency, as you write it" className="w-[190px]">
      {(props) => (
        <input
          {...props}
          key={value}
          defaultValue={value}
          maxLength={8}
          onBlur={(event) => {
            const typed = event.target.value.trim();
            if (typed !== '' && typed !== value) onKeep(typed);
            else event.target.value = value;
          }}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
      )}
    </Field>
  );
}
