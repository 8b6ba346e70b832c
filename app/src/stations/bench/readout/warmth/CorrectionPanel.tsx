import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useMemo, useState } from 'react';
import { setCorrection } from '@plain-trowel/core/garden/edits/bench';
import { pointAtRest, BATH_SPAN_C } from '@plain-trowel/core/temperature/pointAtRest';
import { channelName, fullScaleOf, meantValue } from '@plain-trowel/core/garden/bind/channels';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import {
  lineOf,
  NO_CORRECTION,
  offsetOf,
  trimOf,
  type Correction,
  type Pair,
} from '@plain-trowel/core/temperature/correction';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { lineIssueText, trimIssueText } from '../../../../words/correctionText.ts';
import { ThermistorForm } from './ThermistorForm.tsx';
import { temperatureText } from '../../../../words/unitText.ts';

/** Newest readings that a point is looked for in. */
const POINT_S = 300;

type Method = 'one' | 'two' | 'thermistor' | 'trim';

/** Corrects a thermometer against trusted values, a thermistor by its curve, a battery monitor against a multimeter. */
export function CorrectionPanel({ channel, onDone }: { channel: Channel; onDone: () => void }) {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const isBattery = channel.quantity === 'battery voltage';
  const [method, setMethod] = useState<Method>(isBattery ? 'trim' : 'one');
  const [trusted, setTrusted] = useState(isBattery ? 12.6 : 20);
  const [low, setLow] = useState<Pair | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const buffer = session.bufferOf(channel.id);
  // A thermistor's divider moves by about a third of its scale from ice to bath.
  const span = channel.correction.kind === 'thermistor' ? fullScaleOf(garden, channel) / 3 : BATH_SPAN_C;
  // Looked at again every other second: the watch behind it is no light work.
  const lookS = Math.floor((buffer?.last()?.timeMs ?? 0) / 2000);
  const resting = useMemo(
    () =>
      isBattery || !buffer
        ? null
        : pointAtRest(buffer.since((buffer.last()?.timeMs ?? 0) - POINT_S * 1000), span),
    // oxlint-disable-next-line hooks/exhaustive-deps -- the buffer is one that grows
    [isBattery, buffer, span, lookS],
  );
  const last = buffer?.last()?.value;
  const lastMeant = last === undefined ? null : meantValue(garden, channel, last).value;
  const raw = isBattery ? last : lastMeant === null ? undefined : resting?.value;
  const meant = raw === undefined ? null : meantValue(garden, channel, raw).value;
  const name = channelName(garden, channel);
  const keep = (correction: Correction) => {
    setProblem(null);
    void commit(
      `correct ${name}`,
      (before) => ({ garden: setCorrection(before, channel.id, correction) }),
      `${name} is corrected.`,
    ).then((saved) => saved && onDone());
  };
  const made = { madeAt: isoOf(live.nowMs) };
  const { correction } = channel;
  const one = () => {
    if (raw === undefined || meant === null) return;
    const more = offsetOf({ read: meant, trusted });
    const against = `a trusted thermometer at ${temperatureText(trusted)}`;
    if (correction.kind === 'thermistor')
      keep({ ...correction, offset: correction.offset + more, ...made, against });
    else if (correction.kind === 'line')
      keep({ ...correction, offset: correction.offset + more, ...made, against });
    else keep({ kind: 'offset', offset: trusted - raw, ...made, against });
  };
  const two = () => {
    if (raw === undefined) return;
    if (!low) {
      setLow({ read: raw, trusted });
      setTrusted(40);
      return;
    }
    const line = lineOf(low, { read: raw, trusted });
    if (!line.ok) setProblem(lineIssueText(line.issue));
    else
      keep({
        kind: 'line',
        ...line.value,
        ...made,
        against: `${temperatureText(low.trusted)} and ${temperatureText(trusted)}`,
      });
  };
  const trim = () => {
    if (raw === undefined || meant === null) return;
    const now = correction.kind === 'line' ? correction.gain : 1;
    const trimmed = trimOf({ meterV: trusted, reported: meant, now });
    if (!trimmed.ok) setProblem(trimIssueText(trimmed.issue));
    else
      keep({
        kind: 'line',
        gain: trimmed.value,
        offset: 0,
        ...made,
        against: `a multimeter at ${formatNumber(trusted, 2)} V`,
      });
  };
  const act = method === 'two' ? two : method === 'trim' ? trim : one;
  return (
    <section aria-label={`Correct ${name}`} className="mb-4 border-l-[3px] border-ink pl-4">
      <h2>Correct {name}</h2>
      {!isBattery && (
        <Choice<Method>
          legend="Method"
          options={[
            { value: 'one', label: 'one trusted value' },
            { value: 'two', label: 'ice slush and warm bath', disabled: correction.kind === 'thermistor' },
            { value: 'thermistor', label: 'thermistor’s curve' },
          ]}
          value={method}
          onChange={(chosen) => {
            setMethod(chosen);
            setLow(null);
            setTrusted(chosen === 'two' ? 0 : 20);
          }}
        />
      )}
      {method === 'thermistor' ? (
        <ThermistorForm channel={channel} onKeep={keep} />
      ) : (
        <>
          <p className="mt-1 max-w-[66ch] text-soft">
            {method === 'one' &&
              'Side by side with a thermometer you trust, in shade, for ten minutes. Then type what that one says.'}
            {method === 'two' &&
              (low
                ? 'Now a warm bath, as warm as a hand bears and never a flame, stirred, the trusted thermometer beside it. Type what that one says.'
                : 'Crushed ice in a cup, water to fill the gaps, stirred: 0 °C. Wait until the number rests, the probe in the middle.')}
            {method === 'trim' &&
              'Measure the battery at its terminals with a multimeter while the board runs, and type what it says.'}
          </p>
          <div className="mt-2 flex flex-wrap items-end gap-4">
            <div className="w-[190px]">
              <NumberField
                label={isBattery ? 'Multimeter' : 'Trusted value'}
                unit={isBattery ? 'V' : '°C'}
                value={trusted}
                least={isBattery ? 0.5 : -30}
                most={isBattery ? 60 : 100}
                whole={false}
                decimals={isBattery ? 2 : 1}
                onKeep={setTrusted}
              />
            </div>
            <Button
              look={resting && !resting.isAtRest ? 'plain' : 'primary'}
              disabled={raw === undefined || (resting !== null && !resting.isAtRest)}
              onClick={act}
            >
              {method === 'two' && !low ? 'Take this point' : 'Correct it'}
            </Button>
            <span className="text-[14px] text-soft">
              {meant === null
                ? lastMeant === null && last !== undefined
                  ? 'That is no temperature: open, shorted, or a fault code. Look at its plug.'
                  : 'No value comes in, or too few since the last change.'
                : resting && !resting.isAtRest
                  ? `The middle of ${resting.readings} readings is ${temperatureText(meant)}. Not at rest yet: wait until it has stopped moving.`
                  : `It says ${isBattery ? `${formatNumber(meant, 2)} V` : temperatureText(meant)} now.`}
            </span>
          </div>
        </>
      )}
      {problem !== null && (
        <p role="alert" className="mt-2 border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
      <p className="mt-2">
        <button type="button" className="press mr-4 underline underline-offset-4" onClick={onDone}>
          Leave it as it is
        </button>
        {correction.kind !== 'none' && (
          <button
            type="button"
            className="press underline underline-offset-4"
            onClick={() => keep(NO_CORRECTION)}
          >
            Take the correction away
          </button>
        )}
      </p>
    </section>
  );
}
