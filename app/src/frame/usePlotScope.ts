import { byId } from '@plain-trowel/core/quantity/byId';
import { useSearchParams } from 'react-router';
import { useGarden } from '../data/gardenContext.ts';

/** The plot that the label rack points at; the first one until another is chosen, null in a garden without plots. */
export function usePlotScope(): string | null {
  const { garden } = useGarden();
  const [search] = useSearchParams();
  const wanted = search.get('plot');
  return byId(garden.plots, wanted)?.id ?? garden.plots[0]?.id ?? null;
}

/** The channel of the probe that the sheet is about, of a plot that has several; null: the one that leads the plot. */
export function useProbeScope(): string | null {
  const [search] = useSearchParams();
  return search.get('probe');
}
