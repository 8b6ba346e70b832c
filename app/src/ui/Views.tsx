import { clsx } from 'clsx';
import { Link, useSearchParams } from 'react-router';

/** Which view of a sheet is open: kept in the address, so that a link and the back button find it. */
export function useView<Id extends string>(ids: readonly [Id, ...Id[]]): Id {
  const [search] = useSearchParams();
  const wanted = search.get('view');
  return ids.find((id) => id === wanted) ?? ids[0];
}

/** The views of one sheet, as a row of ruled tabs under its head. */
export function Views<Id extends string>({
  label,
  views,
  open,
}: {
  label: string;
  views: readonly { id: Id; name: string; count?: number }[];
  open: Id;
}) {
  const [search] = useSearchParams();
  const to = (id: Id) => {
    const next = new URLSearchParams(search);
    next.set('view', id);
    return `?${next.toString()}`;
  };
  return (
    <nav aria-label={label} className="no-print mb-4 flex flex-wrap gap-x-6 border-b border-rule">
      {views.map((view) => (
        <Link
          key={view.id}
          to={to(view.id)}
          aria-current={view.id === open ? 'page' : undefined}
          className={clsx(
            'press -mb-px flex items-center border-b-2 pt-1 pb-1.5 text-[15px]',
            view.id === open ? 'border-handle font-semibold' : 'border-transparent text-soft hover:text-ink',
          )}
        >
          {view.name}
          {view.count !== undefined && <span className="num ml-1.5 text-soft">{view.count}</span>}
        </Link>
      ))}
    </nav>
  );
}
