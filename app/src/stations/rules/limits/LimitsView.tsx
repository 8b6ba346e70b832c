import { Link } from 'react-router';
import { setBandEdges, setLimits } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { noiseTenthsOf } from '@plain-trowel/core/garden/bind/engineOf';
import type { Curve } from '@plain-trowel/core/calibration/curve';
import { moveEdge, type BandEdges } from '@plain-trowel/core/quantity/bands';
import { moveLimit, type Limits } from '@plain-trowel/core/control/limits';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import type { PlotView } from '../../../links/plotView.ts';
import { PlotRuler } from '../../PlotRuler.tsx';
import { AnswerPanel } from './AnswerPanel.tsx';
import { BandFields } from './BandFields.tsx';
import { LimitFields } from './LimitFields.tsx';
import { SuggestPanel } from './SuggestPanel.tsx';
import { useDraft } from './useDraft.ts';
import { WarmthFields } from './WarmthFields.tsx';
import { isShownRaw } from '@plain-trowel/core/quantity/percentKind';
import { DecidesPanel } from './DecidesPanel.tsx';

/** Where water starts and where it stops, as flags on the ruler; where they could come from; and what the rules answer right now. */
export function LimitsView({ parts, view }: { parts: PlotParts; view: PlotView }) {
  const { garden } = useGarden();
  if (parts.fit) return <Calibrated parts={parts} view={view} fit={parts.fit} />;
  return (
    <>
      <p>
        Limits are set in percent, and {parts.probe?.label ?? 'this probe'} has no percent yet.{' '}
        <Link
          className="font-semibold underline underline-offset-4"
          to={sheetPath(garden.id, 'bench', 'calibrate', parts.plot.id)}
        >
          Calibrate it first
        </Link>
        ; here will then stand its ruler with a start and a stop flag.
      </p>
      <WarmthFields plot={parts.plot} />
    </>
  );
}

function Calibrated({ parts, view, fit }: { parts: PlotParts; view: PlotView; fit: Curve }) {
  const { plot } = parts;
  // The noise of the calm references, not of this moment: a probe being moved would otherwise forbid sound limits.
  const noiseTenths = noiseTenthsOf(fit);
  const limits = useDraft<Limits>(
    plot.limits,
    `limits of ${plot.name}`,
    (a, b) => a.startTenths === b.startTenths && a.stopTenths === b.stopTenths,
    (value) => (garden) => ({ garden: setLimits(garden, plot.id, value) }),
  );
  const edges = useDraft<BandEdges>(
    plot.bandEdges,
    `words of ${plot.name}`,
    (a, b) => a.every((one, at) => one === b[at]),
    (value) => (garden) => ({ garden: setBandEdges(garden, plot.id, value) }),
  );
  return (
    <>
      <DecidesPanel parts={parts} view={view} />
      <PlotRuler
        parts={parts}
        view={view}
        limits={limits.draft}
        edges={edges.draft}
        onMoveLimit={(which, tenths) => limits.move((now) => moveLimit(now, which, tenths, noiseTenths))}
        onLimitMoved={limits.settle}
        onMoveEdge={(at, tenths) => edges.move((now) => moveEdge(now, at, tenths, noiseTenths))}
        onEdgeMoved={edges.settle}
      />
      {fit.percentKind === 'switch' ? (
        <SwitchNote parts={parts} />
      ) : (
        <LimitFields parts={parts} fit={fit} limits={limits.draft} noiseTenths={noiseTenths} />
      )}
      <AnswerPanel parts={parts} />
      {!isShownRaw(fit.percentKind) && <SuggestPanel parts={parts} fit={fit} />}
      {fit.percentKind === 'tension' && <TensionNote />}
      {fit.percentKind === 'counts' && <CountsNote />}
      {!isShownRaw(fit.percentKind) && <BandFields parts={parts} noiseTenths={noiseTenths} />}
      <WarmthFields plot={plot} />
    </>
  );
}

/** Raw counts decide alone: what that leaves out. */
const CountsNote = () => (
  <p className="mt-4 max-w-[68ch] border-t border-rule pt-3">
    By raw counts alone: limits, lamp and program compare the board’s own numbers, and no percent stands
    anywhere. The words go with the limits: right between them, low and wet beyond. Another probe, board or
    supply has other numbers: take the cut-offs again then.
  </p>
);

/** A comparator has one limit, and that is its screw. */
function SwitchNote({ parts }: { parts: PlotParts }) {
  const { garden } = useGarden();
  return (
    <p className="mt-2 max-w-[66ch]">
      {parts.probe?.label} only says dry or wet: its limit is the screw on its comparator. Water starts when
      it says dry and stops when it says wet.{' '}
      <Link
        className="underline underline-offset-4"
        to={sheetPath(garden.id, 'bench', 'calibrate', parts.plot.id)}
      >
        Set the screw in soil that is just right
      </Link>
      .
    </p>
  );
}

const TensionNote = () => (
  <p className="mt-3 max-w-[66ch] text-[14px] text-soft">
    Tension rises as the soil dries, so water starts above the start limit and stops below the stop limit.
    Most guides give 20 to 40 kPa for vegetables in loam, less in sand and for seedlings. Above about 80 kPa
    air enters the cup and the reading means nothing: refill it.
  </p>
);
