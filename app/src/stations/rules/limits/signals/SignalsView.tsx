import { useTyped } from '../../../../ui/useTyped.ts';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import {
  BUZZES,
  DEFAULT_SIGNALS,
  LAMP_COLOURS,
  LAMP_RHYTHMS,
  moveSignal,
  type SignalRule,
  type SignalState,
} from '@plain-trowel/core/control/signals';
import { useGarden } from '../../../../data/gardenContext.ts';
import { decidedView } from '@plain-trowel/core/live/plotView';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Check } from '../../../../ui/Check.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { DISPLAY_TEXT } from '@plain-trowel/core/control/display';
import { DisplayPreview } from './DisplayPreview.tsx';
import { Lamp, lampWords } from '../Lamp.tsx';
import { plotStateName, stateName, stateWhen } from './signalText.ts';

/** What lamp, buzzer and display of a plot say: the first state of this list that holds. The order is the person's, one list for the garden. */
export function SignalsView({ parts }: { parts: PlotParts }) {
  const { garden, commit } = useGarden();
  const now = useLive(({ signals }) => signals[parts.plot.id]);
  const live = useLive();
  const { stored } = useLiveTools();
  const source = live.source;
  const view = decidedView(garden, parts, live, stored);
  const set = (label: string, signals: readonly SignalRule[]) =>
    void commit(label, (before) => ({ garden: { ...before, signals: signals.map((one) => ({ ...one })) } }));
  const change = (state: SignalState, to: Partial<SignalRule>) =>
    set(
      `signal: ${stateName(state)}`,
      garden.signals.map((one) => (one.state === state ? { ...one, ...to } : one)),
    );
  return (
    <>
      <p className="max-w-[68ch] text-[17px]">
        {now ? (
          <>
            {parts.plot.name} now: <b className="font-semibold">{plotStateName(now.state, view)}</b>. Lamp{' '}
            <Lamp colour={now.lamp} className="mb-[-2px]" /> {lampWords(now)}
            {now.buzz === 'silent' ? '' : `, buzzer ${now.buzz}`}.
          </>
        ) : source ? (
          `${parts.plot.name} now: what holds is switched off in this list, so its lamp is dark.`
        ) : (
          'Nothing is connected, so nothing is known of any plot here. The list says what the lamps will show.'
        )}
      </p>
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
        From the top, the first state that holds speaks. Put what must never be missed above what may wait; a
        night above a fault would hide it. “Content” comes last, and only where everything is known and well.
      </p>
      {now && <DisplayPreview parts={parts} text={now.display} />}
      <Scroll label="Signals by priority" className="mt-3">
        <table className="min-w-[720px] [&_td]:align-middle">
          <thead>
            <tr>
              <th>First</th>
              <th>State</th>
              <th>Shown</th>
              <th>Lamp</th>
              <th>Rhythm</th>
              <th>Buzzer</th>
              <th>Display; | turns the page</th>
            </tr>
          </thead>
          <tbody>
            {garden.signals.map((rule, at) => (
              <SignalRow
                key={rule.state}
                rule={rule}
                at={at}
                last={garden.signals.length - 1}
                isNow={rule.state === now?.state}
                onMove={(by) => set('order of the signals', moveSignal(garden.signals, rule.state, by))}
                onChange={(to) => change(rule.state, to)}
              />
            ))}
          </tbody>
        </table>
      </Scroll>
      <Button className="mt-3" onClick={() => set('signals as at first', DEFAULT_SIGNALS)}>
        Back to the usual list
      </Button>
    </>
  );
}

function SignalRow({
  rule,
  at,
  last,
  isNow,
  onMove,
  onChange,
}: {
  rule: SignalRule;
  at: number;
  last: number;
  isNow: boolean;
  onMove: (by: -1 | 1) => void;
  onChange: (to: Partial<SignalRule>) => void;
}) {
  const name = stateName(rule.state);
  const arrow = 'press inline-flex size-7 items-center justify-center border border-rule disabled:opacity-35';
  return (
    <tr className={isNow ? 'bg-paper-2' : undefined}>
      <td className="whitespace-nowrap">
        <button
          type="button"
          className={arrow}
          disabled={at === 0 || at === last}
          onClick={() => onMove(-1)}
          aria-label={`${name}: earlier`}
        >
          ↑
        </button>
        <button
          type="button"
          className={`${arrow} -ml-px`}
          disabled={at >= last - 1}
          onClick={() => onMove(1)}
          aria-label={`${name}: later`}
        >
          ↓
        </button>
      </td>
      <td className="min-w-[190px]">
        <span className="flex items-center gap-2">
          <Lamp colour={rule.on ? rule.lamp : 'off'} />
          <span>
            <b className="block font-semibold">{name}</b>
            <span className="block text-[12.5px] text-soft">{stateWhen(rule.state)}</span>
          </span>
        </span>
      </td>
      <td>
        {rule.state === 'content' ? (
          'when all is well'
        ) : (
          <Check checked={rule.on} onChange={(on) => onChange({ on })}>
            <span className="sr-only">Show {name}</span>
          </Check>
        )}
      </td>
      <td>
        <Pick
          label={`Lamp for ${name}`}
          values={LAMP_COLOURS}
          value={rule.lamp}
          onChange={(lamp) => onChange({ lamp })}
        />
      </td>
      <td>
        <Pick
          label={`Rhythm for ${name}`}
          values={LAMP_RHYTHMS}
          value={rule.rhythm}
          onChange={(rhythm) => onChange({ rhythm })}
        />
      </td>
      <td>
        <Pick
          label={`Buzzer for ${name}`}
          values={BUZZES}
          value={rule.buzz}
          onChange={(buzz) => onChange({ buzz })}
        />
      </td>
      <td>
        <DisplayText
          label={`Display for ${name}`}
          value={rule.display}
          onKeep={(display) => onChange({ display })}
        />
      </td>
    </tr>
  );
}

function Pick<Value extends string>({
  label,
  values,
  value,
  onChange,
}: {
  label: string;
  values: readonly Value[];
  value: Value;
  onChange: (value: Value) => void;
}) {
  return (
    <select
      aria-label={label}
      className="field min-h-[32px]! py-0.5!"
      value={value}
      onChange={(event) => {
        const chosen = values.find((one) => one === event.target.value);
        if (chosen) onChange(chosen);
      }}
    >
      {values.map((one) => (
        <option key={one} value={one}>
          {one}
        </option>
      ))}
    </select>
  );
}

function DisplayText({
  label,
  value,
  onKeep,
}: {
  label: string;
  value: string;
  onKeep: (value: string) => void;
}) {
  const { typed, type, drop, handOver } = useTyped();
  const keep = () => {
    handOver();
    if (typed !== null && typed !== value) onKeep(typed);
  };
  return (
    <input
      aria-label={label}
      className="field num min-h-[32px]! w-[170px] py-0.5!"
      maxLength={DISPLAY_TEXT}
      value={typed ?? value}
      onChange={(event) => type(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') drop();
      }}
    />
  );
}
