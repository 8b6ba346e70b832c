import { clsx } from 'clsx';
import { Link, useSearchParams } from 'react-router';
import { SumForm } from './SumForm.tsx';
import { SUMS, sumOf, SUM_IDS, type SumId } from './sums.ts';

/** The sums by themselves, for the bench: choose one, type, read. */
export function SumsView() {
  const [search] = useSearchParams();
  const open = SUM_IDS.find((id) => id === search.get('sum')) ?? 'led';
  const sum = sumOf(open);
  const to = (id: SumId) => {
    const next = new URLSearchParams(search);
    next.set('sum', id);
    return `?${next.toString()}`;
  };
  return (
    <div className="grid gap-6 sm:grid-cols-[150px_1fr]">
      <nav aria-label="Sums" className="flex flex-wrap gap-x-4 sm:flex-col">
        {SUMS.map((one) => (
          <Link
            key={one.id}
            to={to(one.id)}
            aria-current={one.id === open ? 'page' : undefined}
            className={clsx(
              'press border-l-2 py-1 pl-2',
              one.id === open ? 'border-handle font-semibold' : 'border-rule text-soft',
            )}
          >
            {one.name}
          </Link>
        ))}
      </nav>
      <section aria-label={sum.name}>
        <h2 className="mb-2 text-[19px]">{sum.asks}</h2>
        <SumForm key={sum.id} sum={sum} />
      </section>
    </div>
  );
}
