import type { ReactNode } from 'react';

/** Room for something wider than a phone: it is drawn, or with the arrow keys moved, sideways by itself. */
export const Scroll = ({
  label,
  children,
  className,
}: {
  label: string;
  children: ReactNode;
  className?: string;
}) => (
  <div role="group" aria-label={label} tabIndex={0} className={`overflow-x-auto ${className ?? ''}`}>
    {children}
  </div>
);
