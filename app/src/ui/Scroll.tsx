import type { ReactNode } from 'react';

/** Room for something wider than a phone: it is drawn, or with the arrow keys moved, sideways by itself. What is only read out stays inside it (`relative`), or it would widen the page. */
export const Scroll = ({
  label,
  children,
  className,
}: {
  label: string;
  children: ReactNode;
  className?: string;
}) => (
  <div role="group" aria-label={label} tabIndex={0} className={`relative overflow-x-auto ${className ?? ''}`}>
    {children}
  </div>
);
