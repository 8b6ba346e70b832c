import { Link } from 'react-router';
import { setBandEdges, setLimits } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { noiseTenthsOf } from '@plain-trowel/core/garden/bind/engineParts';
import type { Curve } from '@plain-trowel/core/calibration/curve';
import { moveEdge, type BandEdges } from '@plain-trowel/core/quantity/bands';
import { gapUnderDoubt, moveLimit, type Limits } from '@plain-trowel/core/control/limits';
import { limitRange } from '@plain-trowel/core/garden/bind/limitRange';
import { areLimitsUnset } from '@plain-trowel/core/garden/bind/suggested';
import { areWordsApart, edgesAfter } from '@plain-trowel/core/garden/bind/words';
import { plusMinusAt } from '@plain-trowel/core/live/readingNow';
import { usesProbe } from '@plain-trowel/core/control/programs/programs';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { InTheCode } from '../InTheCode.tsx';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { PlotRuler } from '../../PlotRuler.tsx';
import { AnswerPanel } from './AnswerPanel.tsx';
import { BandFields } from './BandFields.tsx';
import { LimitFields } from './LimitFields.tsx';
import { SuggestPanel } from './SuggestPanel.tsx';
import { useDraft } from './useDraft.ts';
import { WarmthFields } from './WarmthFields.tsx';
import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
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
  const { garden } = useGarden();
  const { plot } = parts;
  // The noise of the calm references, not of this moment: a probe being moved would otherwise forbid sound limits.
  const noiseTenths = noiseTenthsOf(fit);
  const limits = useDraft<Limits>(
    plot.limits,
    `limits of ${plot.name}`,
    (a, b) => a.startTenths === b.startTenths && a.stopTenths === b.stopTenths,
    (value) => (garden) => ({ garden: setLimits(garden, plot.id, value) }),
  );
  const range = limitRange(parts, fit);
  const isApart = areWordsApart(garden, plot);
  const edges = useDraft<BandEdges>(
    plot.bandEdges,
    `words of ${plot.name}`,
    (a, b) => a.every((one, at) => one === b[at]),
    (value) => (garden) => ({ garden: setBandEdges(garden, plot.id, value) }),
  );
  // The words go along under the finger, not only once the flag rests.
  const words =
    limits.draft === plot.limits ? edges.draft : edgesAfter(garden, garden, plot.id, limits.draft);
  const doubtOf = (tenths: number) => plusMinusAt(parts, tenths / 10);
  const doubt = isShownRaw(fit.percentKind)
    ? null
    : { start: doubtOf(limits.draft.startTenths), stop: doubtOf(limits.draft.stopTenths) };
  return (
    <>
      {areLimitsUnset(parts) && <UnsetNote fit={fit} />}
      <DecidesPanel parts={parts} view={view} />
      <PlotRuler
        parts={parts}
        view={view}
        limits={limits.draft}
        edges={words}
        range={range}
        doubt={doubt}
        wordsGoAlong={!isApart}
        onMoveLimit={(which, tenths) =>
          limits.move((now) => moveLimit(now, which, tenths, noiseTenths, range))
        }
        onLimitMoved={limits.settle}
        onMoveEdge={(at, tenths) => edges.move((now) => moveEdge(now, at, tenths, noiseTenths))}
        onEdgeMoved={edges.settle}
      />
      {fit.percentKind === 'switch' ? (
        <SwitchNote parts={parts} />
      ) : (
        <LimitFields parts={parts} fit={fit} limits={limits.draft} noiseTenths={noiseTenths} range={range} />
      )}
      {parts.line && usesProbe(parts.line.program.kind) && (
        <InTheCode
          line={parts.line}
          fields={{ 'start limit': 'start_tenths', 'stop limit': 'stop_tenths' }}
        />
      )}
      {doubt && <GapNote limits={limits.draft} doubt={doubt} fit={fit} />}
      <AnswerPanel parts={parts} />
      {!isShownRaw(fit.percentKind) && <SuggestPanel parts={parts} fit={fit} />}
      {fit.percentKind === 'tension' && <TensionNote />}
      {fit.percentKind === 'counts' && <CountsNote />}
      {!isShownRaw(fit.percentKind) && (
        <BandFields parts={parts} noiseTenths={noiseTenths} isApart={isApart} />
      )}
      <WarmthFields plot={plot} />
    </>
  );
}

/** Start and stop closer together than the number is known: then chance decides which of the two is passed. */
function GapNote({
  limits,
  doubt,
  fit,
}: {
  limits: Limits;
  doubt: Readonly<Record<'start' | 'stop', number | null>>;
  fit: Curve;
}) {
  const known = [doubt.start, doubt.stop].filter((one) => one !== null);
  const widest = known.length > 0 ? Math.max(...known) : null;
  const needed = gapUnderDoubt(limits, widest === null ? null : 10 * widest);
  if (needed === null || widest === null) return null;
  const unit = percentUnit(fit.percentKind);
  return (
    <p className="mt-2 max-w-[66ch] border-l-[3px] border-chaff pl-3 text-[14.5px]">
      <b className="font-semibold">
        This gap of {formatNumber((limits.stopTenths - limits.startTenths) / 10, 1)} {unit} is smaller than
        your ± {formatNumber(widest, 1)}.
      </b>{' '}
      Widen it to {formatNumber(needed / 10, 1)} {unit} or more, or calibrate better: until then chance
      decides where a dose ends.
    </p>
  );
}

/** In percent of the soil the numbers that stood at first mean nothing. */
const UnsetNote = ({ fit }: { fit: Curve }) => (
  <p role="alert" className="mb-2 max-w-[68ch] border-l-[3px] border-handle pl-3">
    <b className="font-semibold">Nobody has set these limits yet,</b> and in {percentUnit(fit.percentKind)} a
    number that nobody chose means nothing: what is wet in sand is dry in peat. Choose the soil below, or put
    the flags where your plant wants them. Until then nothing waters by this probe.
  </p>
);

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
