import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { BAND_NAMES, type BandName } from '@plain-trowel/core/quantity/bands';
import type { Method } from '@plain-trowel/core/calibration/methods';
import { rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { meantValue } from '@plain-trowel/core/garden/bind/channels';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import type { PresentValue } from '@plain-trowel/core/signal/presentValue';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { workNoise, workPresent } from '@plain-trowel/core/signal/workPresent';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { Field } from '../../../ui/Field.tsx';
import { useKeys } from '../../../ui/keys.ts';
import { VERDICT_WORDS } from '../../../words/settlingText.ts';
import { SettlingPanel } from '../readout/SettlingPanel.tsx';
import { Verdict } from '../readout/Verdict.tsx';
import { headlineOf, offerText, silenceText } from '../../../words/headlineText.ts';
import { StandInClock, StandInControls } from '../readout/StandInControls.tsx';
import { restText } from '../../../words/handsFreeText.ts';
import type { RestAnswer } from '@plain-trowel/core/handsFree/atRest';
import { useTakeAtRest } from '../handsFree/useTakeAtRest.ts';
import { useHold } from '../readout/useHold.ts';
import { sharesReadings, type Timed } from '@plain-trowel/core/calibration/checks';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { hasStopped } from '@plain-trowel/core/settling/settlingWatch';

/** What a scale that a board reads says now, g; null where none speaks. */
function weightNow(garden: Garden, present: ReadonlyMap<string, PresentValue>): number | null {
  for (const channel of garden.channels) {
    const value = channel.quantity === 'weight' ? present.get(channel.id) : undefined;
    const meant = value ? meantValue(garden, channel, value.rawCounts).value : null;
    if (meant !== null) return meant;
  }
  return null;
}

/** The reading as it comes in, what is to be typed with it, and the capture. */
export function CaptureBar({
  parts,
  method,
  again,
  beside,
  full,
  others,
  byItself,
  onCapture,
  children,
}: {
  parts: PlotParts;
  method: Method;
  /** The condition was captured before; what was typed with it stays. */
  again: boolean;
  /** The captures that a further one would stand beside: it must not be made of the readings of one of them. */
  beside: readonly Timed[];
  /** Why nothing more can be captured; null while there is room. */
  full: string | null;
  /** What the probe read in the other conditions, counts: while it still reads one of them it has not been moved. */
  others: readonly number[];
  /** It takes a reading by itself once it rests, after a person has said that the probe is in place. */
  byItself: boolean;
  onCapture: (typed: number | null, felt: BandName | null, byItself: boolean) => Promise<boolean>;
  children: ReactNode;
}) {
  const { garden } = useGarden();
  const live = useLive();
  const { session } = useLiveTools();
  const channelId = parts.channel?.id ?? '';
  const hold = useHold(channelId);
  const { present } = hold;
  const settling = live.settling.get(channelId) ?? null;
  const faults = live.faults.get(channelId) ?? [];
  const isStill = hasStopped(settling?.verdict) && faults.length === 0;
  const value = session.captureOf(channelId);
  const offer = offerText(settling, value?.rawCounts ?? null, again, faults.length === 0);
  const hands = live.source?.hands ?? null;
  const [typed, setTyped] = useState('');
  const [felt, setFelt] = useState<BandName | null>(null);
  const asksFeeling = method.id === 'feel';
  const weightG = method.typed?.unit === 'g' ? weightNow(garden, live.present) : null;
  const read = readNumber(typed.trim().replace(',', '.'));
  const of = method.typed;
  const number =
    of && read.kind === 'number' && read.value >= of.least && read.value <= of.most ? read.value : null;
  const mayBeEmpty = typed === '' && (again || of?.optional === true);
  const lacks = (of !== null && number === null && !mayBeEmpty) || (asksFeeling && felt === null);
  // A number that is typed for itself needs no fresh reading.
  const isStale =
    !(of?.optional && number !== null) &&
    value !== null &&
    beside.some((one) => sharesReadings(one, { takenAt: isoOf(live.nowMs), windowS: value.windowS }));
  const [isWaiting, setWaiting] = useState(false);
  const canTake = !lacks && !isStale && full === null;
  const take = (alone: boolean) => {
    if (value && canTake) void onCapture(number, asksFeeling ? felt : null, alone);
  };
  const answer = useTakeAtRest(channelId, others, isWaiting && canTake, () => {
    setWaiting(false);
    take(true);
  });
  const isOwn = of?.optional === true && number !== null;
  // Pressed once it waits for rest; pressed again it takes what there is.
  const waits = byItself && !isWaiting && !isOwn && (answer?.kind !== 'ready' || isStale);
  const capture = () => {
    if (!waits) take(false);
    else if (!lacks && full === null) setWaiting(true);
  };
  useKeys([{ key: 'c', does: 'Capture', run: capture }]);
  return (
    <>
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        {of && (
          <Field
            label={of.label}
            unit={of.unit}
            className="w-[220px]"
            error={typed !== '' && number === null ? `From ${of.least} to ${of.most}.` : undefined}
          >
            {(props) => (
              <input
                {...props}
                className="field num w-full text-right"
                inputMode="decimal"
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
                onKeyDown={(event) => {
                  if (event.key === 'Enter') capture();
                }}
              />
            )}
          </Field>
        )}
        {weightG !== null && (
          <Button onClick={() => setTyped(String(Math.round(weightG)))}>
            From the scale: {formatNumber(weightG)} g
          </Button>
        )}
        {asksFeeling && (
          <Choice
            legend="It feels"
            options={BAND_NAMES.map((value) => ({ value, label: value }))}
            value={felt}
            onChange={setFelt}
          />
        )}
        <Button
          look={!isWaiting && (isStill || waits || isOwn) && !lacks ? 'primary' : 'plain'}
          hint="C"
          disabled={lacks || full !== null || (!waits && (value === null || isStale))}
          onClick={capture}
        >
          {waits ? 'In place: take it at rest' : isOwn ? `Use ${formatCounts(number)}` : offer}
        </Button>
        {children}
        <Button look="quiet" hint="H" disabled={present === null} onClick={hold.toggle}>
          {hold.held ? 'Run on' : 'Hold'}
        </Button>
      </div>
      {isWaiting && <Waiting answer={answer} onStop={() => setWaiting(false)} />}
      {isStale && (
        <p className="mt-2 border-l-[3px] border-chaff pl-3 text-[14.5px]">
          These are still the readings of the capture before. Take the probe out, wipe it, put it back: fresh
          readings are a repeat.
        </p>
      )}
      {asksFeeling && felt === null && (
        <p className="mt-2 text-[14.5px]">Say what your finger feels, then capture.</p>
      )}
      {full !== null && <p className="mt-2 border-l-[3px] border-handle pl-3">{full}</p>}
      <ReadingLines parts={parts} hold={hold} canCapture={value !== null} saysEarly={!isStill && !waits} />
      {hands && (
        <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2">
          <StandInControls hands={hands} plotId={parts.plot.id} probeId={parts.probe?.id ?? ''} />
          {live.source?.clock && <StandInClock clock={live.source.clock} />}
        </div>
      )}
    </>
  );
}

/** It waits for rest, and says how far it is. */
const Waiting = ({ answer, onStop }: { answer: RestAnswer | null; onStop: () => void }) => (
  <p role="status" className="mt-2 flex flex-wrap items-baseline gap-x-3 border-l-[3px] border-steel pl-3">
    <span>
      <b className="font-semibold">Waiting: it is taken by itself once it rests.</b>{' '}
      {answer && `Now: ${restText(answer)}.`}
    </span>
    <button type="button" className="press underline underline-offset-4" onClick={onStop}>
      Not yet
    </button>
  </p>
);

/** The reading, how still it is, and what that is worth. */
function ReadingLines({
  parts,
  hold,
  canCapture,
  saysEarly,
}: {
  parts: PlotParts;
  hold: ReturnType<typeof useHold>;
  canCapture: boolean;
  /** What is captured now is captured early, and that is said. */
  saysEarly: boolean;
}) {
  const { garden } = useGarden();
  const live = useLive();
  const channelId = parts.channel?.id ?? '';
  const rawUnit = parts.channel ? rawUnitOf(parts.channel) : 'counts';
  const { present } = hold;
  const settling = live.settling.get(channelId) ?? null;
  const silence = live.silent.get(channelId) ?? null;
  const headline = headlineOf(silence, settling, live.faults.get(channelId) ?? []);
  return (
    <>
      {present ? (
        <p className="mt-2 text-[14.5px]">
          {hold.held ? 'Held at' : 'Now'} <WorkedNumber id="now" worked={workPresent(present, rawUnit)} />,
          noise <WorkedNumber id="noise" worked={workNoise(present, rawUnit)} prefix="± " />.
        </p>
      ) : (
        <p className="mt-2 text-[14.5px]">
          {silence ? silenceText(silence) : 'No reading comes in.'}{' '}
          <Link
            className="underline underline-offset-4"
            to={sheetPath(garden.id, 'bench', 'readout', parts.plot.id)}
          >
            Connect the board first
          </Link>
          .
        </p>
      )}
      {present && !canCapture && (
        <p className="mt-2 text-[14.5px]">
          Something has just changed: a few readings more, then it can be captured.
        </p>
      )}
      {present && settling && (
        <div className="mt-1">
          {headline && <Verdict headline={headline} />}
          <SettlingPanel channelId={channelId} settling={settling} />
          {saysEarly && (
            <p className="mt-1 text-[14px] text-soft">
              Captured before it has stopped moving, the reference is kept with the words “
              {VERDICT_WORDS[settling.verdict]}”.
            </p>
          )}
        </div>
      )}
    </>
  );
}
