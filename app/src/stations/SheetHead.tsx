import type { ReactNode } from 'react';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { probeLine } from '../words/plotText.ts';

/** Head of a sheet that is about one plot: the plot and its probe, and what they are. */
export function SheetHead({
  parts,
  title,
  action,
}: {
  parts: PlotParts;
  title?: string;
  action?: ReactNode;
}) {
  return (
    <header className="mb-3 flex flex-wrap items-start justify-between gap-x-4 border-b border-ink pb-2.5">
      <div className="min-w-0">
        <h1>{title ?? (parts.probe ? `${parts.plot.name}, probe ${parts.probe.label}` : parts.plot.name)}</h1>
        <p className="text-soft">{probeLine(parts)}</p>
      </div>
      {action}
    </header>
  );
}
