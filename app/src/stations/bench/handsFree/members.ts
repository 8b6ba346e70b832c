import { candidatesOf } from '@plain-trowel/core/garden/bind/decided';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';

/** Probes that a hands-free run can take: every one that is heard and gives a number that moves. */
export const takenTogether = (garden: Garden, heard: ReadonlyMap<string, unknown>): Channel[] =>
  garden.plots
    .flatMap((plot) => candidatesOf(garden, plot.id))
    .filter((one) => one.quantity !== 'moisture switch' && heard.has(one.id));

/** Those of them with raw counts that mean nothing yet. */
export const uncalibratedHere = (garden: Garden, heard: ReadonlyMap<string, unknown>): Channel[] =>
  takenTogether(garden, heard).filter((one) => one.quantity === 'moisture' && one.calibrationId === null);
