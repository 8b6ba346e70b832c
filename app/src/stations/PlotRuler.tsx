import { recordUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { byId } from '@plain-trowel/core/quantity/byId';
import { fullScaleCounts } from '@plain-trowel/core/electrics/converter';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { LimitName, LimitRange, Limits } from '@plain-trowel/core/control/limits';
import type { BandEdges } from '@plain-trowel/core/quantity/bands';
import { workReference, workTyped } from '@plain-trowel/core/calibration/workReference';
import { runOf } from '@plain-trowel/core/garden/bind/plotParts';
import { markOf } from '@plain-trowel/core/garden/bind/curveOf';
import { shortMark } from '../words/calibrationText.ts';
import { useGarden } from '../data/gardenContext.ts';
import { putOnSlip } from '../frame/slip.ts';
import { rulerPegs } from '../ruler/pegs.ts';
import { useLive } from '../links/liveContext.ts';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { Ruler } from '../ruler/Ruler.tsx';
import { typedCounts } from '@plain-trowel/core/calibration/runPoint';
import { formatPercent } from '@plain-trowel/core/quantity/format';

/** The ruler of a plot's leading probe, with the reading as it is now. */
export function PlotRuler({
  parts,
  view,
  limits,
  edges,
  onMoveLimit,
  onLimitMoved,
  onMoveEdge,
  onEdgeMoved,
  range = null,
  doubt = null,
  wordsGoAlong = false,
  showsRun = false,
}: {
  parts: PlotParts;
  view: PlotView;
  limits: Limits | null;
  edges?: BandEdges;
  onMoveLimit?: (which: LimitName, tenths: number) => void;
  onLimitMoved?: () => void;
  onMoveEdge?: (at: number, tenths: number) => void;
  onEdgeMoved?: () => void;
  range?: LimitRange | null;
  doubt?: Readonly<Record<LimitName, number | null>> | null;
  wordsGoAlong?: boolean;
  /** Pegs of the calibration under way in place of those of the one in use. */
  showsRun?: boolean;
}) {
  const { garden } = useGarden();
  const live = useLive();
  const { channel, fit, plot, board } = parts;
  const present = live.present.get(channel?.id ?? '');
  const settling = live.settling.get(channel?.id ?? '');
  const pegs = rulerPegs(parts, channel && showsRun ? runOf(garden, channel.id) : null);
  const inspect = (id: string) => {
    const points = [
      ...((channel && runOf(garden, channel.id)?.points) ?? []),
      ...(parts.calibration?.points ?? []),
    ];
    const point = byId(points, id);
    const last = point?.captures.at(-1);
    const typed = point && typedCounts(point);
    if (point && typed != null) putOnSlip(`peg ${id}`, workTyped(point.condition, typed));
    else if (point && last) putOnSlip(`peg ${id}`, workReference({ condition: point.condition, ...last }));
  };
  const now =
    view.rawCounts === null || view.state === 'stale'
      ? null
      : {
          counts: view.rawCounts,
          noiseCounts: present?.noiseCounts ?? 0,
          means:
            view.span && view.scale && view.scale.percentKind !== 'counts'
              ? formatPercent(view.span.percent, view.scale)
              : null,
          end: settling?.verdict === 'settling' ? settling.end : null,
        };
  const mark = parts.calibration ? markOf(parts.calibration) : null;
  return (
    <>
      {mark && (
        <p className="mb-1 text-[13.5px] font-semibold text-handle">Marked: {shortMark(mark.kinds)}</p>
      )}
      <Ruler
        label={`Ruler of ${parts.probe?.label ?? 'the probe'} in ${plot.name}`}
        fullScaleCounts={fullScaleCounts(board?.adcBits ?? 12)}
        rawUnit={recordUnitOf(channel)}
        fit={fit}
        edges={edges ?? plot.bandEdges}
        words={plot.words}
        range={limits ? range : null}
        doubt={limits ? doubt : null}
        wordsGoAlong={wordsGoAlong}
        pegs={pegs}
        limits={limits}
        now={now}
        {...(onMoveLimit ? { onMoveLimit } : {})}
        {...(onLimitMoved ? { onLimitMoved } : {})}
        {...(onMoveEdge ? { onMoveEdge } : {})}
        {...(onEdgeMoved ? { onEdgeMoved } : {})}
        {...(showsRun ? { onInspectPeg: inspect } : {})}
      />
    </>
  );
}
