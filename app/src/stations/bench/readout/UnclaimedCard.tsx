import { useState } from 'react';
import { suggestClaims, type Claim, type Unclaimed } from '@plain-trowel/core/garden/bind/claims';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { claimStreams, setBoardReads } from '@plain-trowel/core/garden/edits/bench';
import { silenceOf } from '@plain-trowel/core/live/silence';
import { byId } from '@plain-trowel/core/quantity/byId';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { DECIDING_KINDS, type ProbeKind } from '@plain-trowel/core/quantity/probeKind';
import { traceOf } from '@plain-trowel/core/records/trace';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { Field } from '../../../ui/Field.tsx';
import { sparkPath } from './channels/sparkPath.ts';
import { isDeciding } from '@plain-trowel/core/garden/bind/scale';

const MOST_ROWS = 12;

/** Numbers that a board prints and that nobody has claimed: each with its trace and what it probably is. Said once, they are never asked about again. */
export function UnclaimedCard({ parts }: { parts: PlotParts }) {
  const { garden } = useGarden();
  const live = useLive();
  const { session } = useLiveTools();
  const plotId = parts.plot.id;
  const boardId = parts.channel?.boardId ?? garden.boards[0]?.id ?? '';
  const taken = new Set(
    garden.channels.filter((one) => one.boardId === boardId).map((one) => one.streamName),
  );
  const ignored = new Set(byId(garden.boards, boardId)?.reads.ignores);
  const here = live.streams.filter((stream) => {
    if (stream.boardId !== boardId || taken.has(stream.name) || ignored.has(stream.name.slice(0, 60)))
      return false;
    const buffer = session.bufferUnder(boardId, stream.name);
    return buffer !== null && !silenceOf(buffer, live.nowMs);
  });
  const heard = new Set(live.streams.filter((one) => one.boardId === boardId).map((one) => one.name));
  const unclaimed: Unclaimed[] = here.slice(0, MOST_ROWS).map(({ name, last, unit }) => ({
    boardId,
    name,
    last,
    unit,
  }));
  const asks = live.asksComma?.boardId === boardId ? live.asksComma : null;
  if (asks) return <CommaQuestion key={boardId} boardId={boardId} text={asks.text} />;
  if (unclaimed.length === 0) return null;
  return (
    <Rows
      // A name more or less is another question.
      key={unclaimed.map((one) => one.name).join('\n')}
      unclaimed={unclaimed}
      suggested={suggestClaims(garden, unclaimed, heard, plotId)}
      plotId={plotId}
      more={here.length - unclaimed.length}
    />
  );
}

/** "2600,5" is one number or two: asked once for a board. */
function CommaQuestion({ boardId, text }: { boardId: string; text: string }) {
  const { commit } = useGarden();
  const [one = '', two = ''] = text.split(',');
  const answer = (comma: 'decimal' | 'border') =>
    void commit('what a comma is', (garden) => ({
      garden: setBoardReads(garden, boardId, () => ({ comma })),
    }));
  return (
    <section aria-label="A comma" className="mt-3 border border-ink p-3">
      <h2 className="text-[15.5px]">
        The board prints <span className="num">{text}</span>. One number or two?
      </h2>
      <div className="mt-2 flex flex-wrap gap-3">
        <Button onClick={() => answer('decimal')}>
          One: {one}.{two}, with a decimal comma
        </Button>
        <Button onClick={() => answer('border')}>
          Two: {one} and {two}
        </Button>
      </div>
    </section>
  );
}

const isSame = (one: Claim, other: Claim): boolean => JSON.stringify(one) === JSON.stringify(other);

/** What a number can be said to be here, in a word each. */
function optionsFor(garden: Garden, plotId: string, suggested: Claim): { claim: Claim; label: string }[] {
  const probe = garden.probes.find((one) => one.plotId === plotId);
  const channel = garden.channels.find((one) => one.probeId === probe?.id && isDeciding(one.quantity));
  const plot = byId(garden.plots, plotId);
  const own: { claim: Claim; label: string }[] =
    probe && channel
      ? [{ claim: { kind: 'channel', channelId: channel.id }, label: `moisture: ${probe.label}` }]
      : plot
        ? [
            {
              claim: { kind: 'new probe', plotId, quantity: 'moisture' },
              label: `moisture: ${plot.name}`,
            },
            {
              claim: { kind: 'new probe', plotId, quantity: 'factory moisture' },
              label: `the probe’s own percent: ${plot.name}`,
            },
          ]
        : [];
  const named = own.some(({ claim }) => isSame(claim, suggested)) ? [] : [...elsewhere(garden, suggested)];
  return [
    ...own,
    ...named,
    ...(probe
      ? [
          {
            claim: { kind: 'probe', probeId: probe.id, quantity: 'soil temperature' } as const,
            label: 'soil temperature',
          },
          {
            claim: { kind: 'probe', probeId: probe.id, quantity: 'factory moisture' } as const,
            label: 'its own percent',
          },
        ]
      : []),
    { claim: { kind: 'board', quantity: 'air temperature' }, label: 'air temperature' },
    { claim: { kind: 'board', quantity: 'battery voltage' }, label: 'battery' },
    { claim: { kind: 'board', quantity: 'light' }, label: 'light' },
    { claim: { kind: 'board', quantity: 'distance' }, label: 'tank' },
    { claim: { kind: 'ignore' }, label: 'ignore' },
  ];
}

/** Moisture of another plot than the one that is open, where that is suggested. */
function elsewhere(garden: Garden, suggested: Claim): { claim: Claim; label: string }[] {
  if (suggested.kind === 'new probe')
    return [
      {
        claim: suggested,
        label: `${suggested.quantity === 'factory moisture' ? 'the probe’s own percent' : 'moisture'}: ${byId(garden.plots, suggested.plotId)?.name ?? ''}`,
      },
    ];
  if (suggested.kind !== 'channel') return [];
  const channel = byId(garden.channels, suggested.channelId);
  return [{ claim: suggested, label: `moisture: ${byId(garden.probes, channel?.probeId)?.label ?? ''}` }];
}

function Rows({
  unclaimed,
  suggested,
  plotId,
  more,
}: {
  unclaimed: readonly Unclaimed[];
  suggested: readonly Claim[];
  plotId: string;
  more: number;
}) {
  const { garden, commit } = useGarden();
  const [chosen, setChosen] = useState<Readonly<Record<string, Claim>>>({});
  const [kind, setKind] = useState<ProbeKind>('capacitive stick');
  const claimOf = (at: number): Claim =>
    chosen[unclaimed[at]?.name ?? ''] ?? suggested[at] ?? { kind: 'ignore' };
  const isNew = unclaimed.some((_, at) => claimOf(at).kind === 'new probe');
  const keep = () =>
    void commit(
      'say what the numbers are',
      (before) => ({
        garden: claimStreams(
          before,
          unclaimed.map(({ boardId, name }, at) => ({ boardId, name, claim: claimOf(at) })),
          kind,
          Math.random,
        ),
      }),
      'The numbers have their places now.',
    );
  const count = unclaimed.length;
  return (
    <section aria-label="Numbers that nobody has claimed" className="mt-3 border border-ink">
      <h2 className="border-b border-ink px-3 py-2 text-[15.5px]">
        This board {count === 1 ? 'prints a number' : `prints ${count} numbers`} that nobody has claimed.{' '}
        {count === 1 ? 'What is it?' : 'What are they?'}
      </h2>
      <ul>
        {unclaimed.map((one, at) => (
          <Row
            key={one.name}
            one={one}
            options={optionsFor(garden, plotId, suggested[at] ?? { kind: 'ignore' })}
            claim={claimOf(at)}
            onChoose={(claim) => setChosen((before) => ({ ...before, [one.name]: claim }))}
          />
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-3 px-3 py-2.5">
        <Button look="primary" onClick={keep}>
          {count === 1 ? 'That is what it is' : 'That is what they are'}
        </Button>
        {isNew && (
          <Field label="Kind of the new probe" className="w-[220px]">
            {(props) => (
              <select
                {...props}
                value={kind}
                onChange={(event) =>
                  setKind(DECIDING_KINDS.find((each) => each === event.target.value) ?? 'capacitive stick')
                }
              >
                {DECIDING_KINDS.map((each) => (
                  <option key={each}>{each}</option>
                ))}
              </select>
            )}
          </Field>
        )}
        {more > 0 && <p className="text-[13.5px] text-soft">{more} more come after these.</p>}
      </div>
    </section>
  );
}

const SPARK = { width: 110, height: 26 };

function Row({
  one,
  options,
  claim,
  onChoose,
}: {
  one: Unclaimed;
  options: readonly { claim: Claim; label: string }[];
  claim: Claim;
  onChoose: (claim: Claim) => void;
}) {
  const { session } = useLiveTools();
  const newest = session.bufferUnder(one.boardId, one.name)?.since(-Infinity);
  const times = newest?.timesMs ?? new Float64Array(0);
  const trace = traceOf(times, newest?.values ?? new Float64Array(0), 60);
  const [fromMs, toMs] = [times[0] ?? 0, times.at(-1) ?? 1];
  const at = options.findIndex((option) => isSame(option.claim, claim));
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1.5 border-b border-rule px-3 py-1.5">
      <b className="w-[110px] truncate font-mono text-[14px] font-semibold" title={one.name}>
        {one.name}
      </b>
      <span className="num w-[92px]">
        {formatNumber(one.last, Number.isInteger(one.last) ? 0 : 2)}
        {one.unit !== null && ` ${one.unit}`}
      </span>
      <svg width={SPARK.width} height={SPARK.height} role="img" aria-label={`Trace of ${one.name}`}>
        <path
          d={sparkPath(trace, { fromMs, toMs: Math.max(toMs, fromMs + 1), ...SPARK })}
          fill="none"
          strokeWidth={1.5}
          className="stroke-ink"
        />
      </svg>
      <Choice
        legend={`What is ${one.name}?`}
        options={options.map(({ label }, value) => ({ value, label }))}
        value={Math.max(0, at)}
        onChange={(value) => onChoose(options[value]?.claim ?? { kind: 'ignore' })}
      />
    </li>
  );
}
