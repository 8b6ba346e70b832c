import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { Need } from '@plain-trowel/core/telling/needs';
import { byId } from '@plain-trowel/core/quantity/byId';
import { sheetPath } from '../../../frame/stations.ts';

/** Where something is put right, and what the way there is called. */
export type Remedy = { readonly name: string; readonly to: string };

const withView = (path: string, view: string): string =>
  `${path}${path.includes('?') ? '&' : '?'}view=${view}`;

export function remedyOf(garden: Garden, { kind, plotId, unknown, subjectId }: Need): Remedy {
  const readout = sheetPath(garden.id, 'bench', 'readout', plotId);
  const calibrate = sheetPath(garden.id, 'bench', 'calibrate', plotId);
  const limits = sheetPath(garden.id, 'rules', 'limits', plotId);
  const program = withView(limits, 'program');
  switch (kind) {
    case 'dry':
      return garden.waterLines.some((line) => line.plotId === plotId)
        ? { name: 'Give it water', to: program }
        : { name: 'Look at it', to: readout };
    case 'wet':
    case 'contradiction':
      return { name: 'Look at its settings', to: program };
    case 'line-locked':
      return { name: 'Look, then unlock', to: program };
    case 'tank-low':
    case 'tank-unknown': {
      const line = garden.waterLines.find(({ tankId }) => tankId === subjectId);
      const dose = sheetPath(garden.id, 'bench', 'dose', line?.plotId ?? null);
      return { name: 'Look at the tank', to: withView(dose, 'reservoir') };
    }
    case 'recalibrate':
      return { name: 'Calibrate', to: calibrate };
    case 'unknown':
      return unknown === 'not-calibrated' || unknown === 'void'
        ? { name: 'Calibrate', to: calibrate }
        : { name: byId(garden.boards, subjectId) ? 'Look at the board' : 'Look at the probe', to: readout };
    case 'probe-fault':
    case 'out-of-soil':
      return { name: 'Look at the probe', to: readout };
    case 'silent-board':
    case 'never-heard':
    case 'battery-low':
    case 'frozen-charge': {
      const probe = garden.channels.find((one) => one.boardId === subjectId && one.probeId !== null)?.probeId;
      const itsPlot = byId(garden.probes, probe)?.plotId ?? null;
      return { name: 'Look at the board', to: sheetPath(garden.id, 'bench', 'readout', itsPlot) };
    }
    case 'unsent':
      return { name: 'Look at the letters', to: withView(limits, 'alerts') };
    case 'hot':
    case 'cold':
      return { name: 'Look at it', to: readout };
  }
}
