import type { DisplayValues } from '@plain-trowel/core/control/display';
import { isUnknown } from '@plain-trowel/core/control/plotState';
import { ambientOf } from '@plain-trowel/core/garden/bind/ambient';
import { tankNow, valueNow } from '@plain-trowel/core/garden/bind/plotFacts';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { NOTHING_CHOSEN } from '@plain-trowel/core/garden/document/waterSchema';
import { byId } from '@plain-trowel/core/quantity/byId';
import { formatCounts, formatNumber, formatPercent } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { decidedView } from '@plain-trowel/core/live/plotView';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { heardNow } from '../../../../links/heardNow.ts';
import { stateWord } from '@plain-trowel/core/telling/plotWords';
import { litresText, temperatureText } from '../../../../words/unitText.ts';

/** What the places of a display text stand for in a plot right now. */
export function useDisplayValues(parts: PlotParts): DisplayValues {
  const { garden } = useGarden();
  const live = useLive();
  const { stored } = useLiveTools();
  const { plot, board, line } = parts;
  const view = decidedView(garden, parts, live, stored);
  const heard = heardNow(live);
  const place = { boardId: board?.id ?? '', plotId: plot.id, chosen: NOTHING_CHOSEN };
  const of = (sense: 'soilTenthsC' | 'airTenthsC' | 'battery') =>
    valueNow(garden, ambientOf(garden, place, sense), heard);
  const degrees = of('soilTenthsC') ?? of('airTenthsC');
  const volts = of('battery');
  const tank = byId(garden.reservoirs, line?.tankId);
  const level = tank && tankNow(tank, heard);
  const isKnown = !isUnknown(view.state);
  return {
    percent: isKnown && view.span && view.scale ? formatPercent(view.span.percent, view.scale) : null,
    raw: view.rawCounts === null ? null : formatCounts(Math.round(view.rawCounts)),
    word: stateWord(view.state, view.words),
    temperature: degrees === null ? null : temperatureText(degrees),
    battery: volts === null ? null : `${formatNumber(volts, 2)} V`,
    tank: !level
      ? null
      : level.volumeMl === null
        ? level.isLow
          ? 'low'
          : 'has water'
        : litresText(level.volumeMl),
  };
}
