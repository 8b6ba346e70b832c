/** What the stand-ins need of a garden. Pots and probes differ a little from plot to plot, always in the same way for the same plot. */
import type { BoardEngine } from '@plain-trowel/core/control/host/boardEngine';
import type { Senses } from '@plain-trowel/core/control/host/senses';
import { evennessOf } from '@plain-trowel/core/dosing/outlets';
import { reservoirOf, type Reservoir } from '@plain-trowel/core/dosing/reservoir';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { engineOf } from '@plain-trowel/core/garden/bind/engineOf';
import type { Garden, WaterLine } from '@plain-trowel/core/garden/document/schema';
import { sensesOf } from '@plain-trowel/core/garden/bind/sensesOf';
import type { PercentScale } from '@plain-trowel/core/quantity/percentKind';
import { seedOf, uniform } from '../random.ts';
import { channelSetup, type ChannelSetup } from './channels.ts';
import type { PotTraits } from './pot.ts';

export type PlotSetup = { readonly plotId: string; readonly pot: PotTraits };

export type LineSetup = {
  readonly lineId: string;
  readonly name: string;
  readonly boardId: string;
  /** The plot whose probe decides. */
  readonly plotId: string;
  readonly flowMlPerS: number;
  readonly tubeS: number;
  readonly tankId: string | null;
  /** Where its water goes; the shares add up to one. */
  readonly shares: readonly { readonly plotId: string; readonly share: number }[];
  /** What the percent stands on that its decisions are made in. */
  readonly scale: PercentScale | null;
};

export type TankSetup = {
  readonly tankId: string;
  readonly channelId: string | null;
  readonly fullMl: number;
  readonly minimumMl: number;
  /** How its level reads; null for a float. */
  readonly curve: Reservoir | null;
};

/** An output that holds a state; of a permit contact also the other timer that it stands in series with. */
export type ContactSetup = {
  readonly contactId: string;
  readonly name: string;
  readonly boardId: string;
  readonly plotId: string;
  readonly use: 'permit' | 'light';
  /** What it does without current. */
  readonly restsOn: boolean;
};

export type Setup = {
  readonly plots: readonly PlotSetup[];
  readonly channels: readonly ChannelSetup[];
  readonly lines: readonly LineSetup[];
  readonly tanks: readonly TankSetup[];
  readonly contacts: readonly ContactSetup[];
  readonly engines: readonly BoardEngine[];
  /** How the boards take what their channels print at a moment. */
  readonly senses: (newest: Senses['newest']) => Senses;
  readonly localTime: Senses['localTime'];
};

/** Of a tank that nobody has measured, ml. */
const USUAL_TANK_ML = 20_000;

export function setupOf(garden: Garden): Setup {
  const senses = sensesOf(garden, () => null);
  return {
    plots: garden.plots.map((plot) => ({ plotId: plot.id, pot: potTraits(plot.id) })),
    channels: garden.channels.flatMap((one) => channelSetup(garden, one) ?? []),
    lines: garden.waterLines.map((line) => ({
      lineId: line.id,
      name: line.name,
      boardId: line.boardId,
      plotId: line.plotId,
      flowMlPerS: line.flowMlPerS,
      tubeS: line.tubeS,
      tankId: line.tankId,
      shares: sharesOf(line),
      scale: plotParts(garden, line.plotId)?.fit ?? null,
    })),
    tanks: garden.reservoirs.map((one) => {
      const curve = one.kind === 'level' ? reservoirOf(one.levels) : null;
      return {
        tankId: one.id,
        channelId: one.channelId,
        curve: curve?.ok ? curve.value : null,
        fullMl: curve?.ok ? curve.value.fullMl : USUAL_TANK_ML,
        minimumMl: one.minimumMl,
      };
    }),
    contacts: garden.contacts.map(({ id, name, boardId, plotId, rule }) => ({
      contactId: id,
      name,
      boardId,
      plotId,
      use: rule.kind,
      restsOn: rule.kind === 'permit' && rule.atRest === 'permits',
    })),
    engines: garden.boards.map((board) => engineOf(garden, board.id)),
    senses: (newest) => ({ ...senses, newest }),
    localTime: senses.localTime,
  };
}

/** By what the outlets' cups held; all to the line's own plot while nobody has measured them. Water that leads nowhere is lost. */
function sharesOf(line: WaterLine): { plotId: string; share: number }[] {
  const measured = line.outlets.filter((one) => one.cupMl !== null);
  const even = evennessOf(measured.map((one) => one.cupMl ?? 0));
  if (!even) return [{ plotId: line.plotId, share: 1 }];
  return measured.flatMap((outlet, at) =>
    outlet.plotId === null ? [] : [{ plotId: outlet.plotId, share: (even.sharesPercent[at] ?? 0) / 100 }],
  );
}

function potTraits(plotId: string): PotTraits {
  const size = 900 + 1200 * uniform(seedOf(plotId)).value;
  return { saturationMl: size, capacityMl: 0.68 * size, driestMl: 0.12 * size, dryingMlPerDay: 0.16 * size };
}
