import type { ReactNode } from 'react';

/** A part of the program with the guards that hold it beside it: what it wants on the left, what it may never do on the right. */
export function Guarded({
  title,
  guards,
  children,
}: {
  readonly title: string;
  readonly guards: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <section
      aria-label={title}
      className="mt-5 grid gap-x-8 gap-y-4 border-t border-rule pt-3 md:grid-cols-[minmax(0,1fr)_236px]"
    >
      <div className="min-w-0">
        <h2>{title}</h2>
        {children}
      </div>
      <div role="group" aria-label={`Guards: ${title}`} className="border-l-[3px] border-ink pl-4">
        <p className="text-[12.5px] font-semibold text-soft">Guard, in the board itself</p>
        <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-3 md:grid-cols-1">{guards}</div>
      </div>
    </section>
  );
}
