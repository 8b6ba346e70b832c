import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useEffect, useEffectEvent, useState } from 'react';
import { setLabelProved, swapStreams } from '@plain-trowel/core/garden/edits/bench';
import { probeScale } from '@plain-trowel/core/garden/bind/channels';
import { judgeDip } from '@plain-trowel/core/sideBySide/dip';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { ColourFlag } from '../../../../ui/ColourFlag.tsx';
import { dayText } from '@plain-trowel/core/quantity/timeText';
import type { Member } from './members.ts';

/** "Dip the one you call deep": each label is asked for, and the channel that moves is the one in the hand. */
export function DipCheck({ members }: { members: readonly Member[] }) {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const hands = live.source?.hands ?? null;
  const [asked, setAsked] = useState<{ probeId: string; before: ReadonlyMap<string, number> } | null>(null);
  const askedMember = members.find(({ probe }) => probe.id === asked?.probeId);
  const answer =
    asked && askedMember
      ? judgeDip(
          members.flatMap(({ channel }) => {
            const present = live.present.get(channel.id);
            const beforeCounts = asked.before.get(channel.id);
            return present && beforeCounts !== undefined
              ? [
                  {
                    id: channel.id,
                    beforeCounts,
                    nowCounts: present.rawCounts,
                    noiseCounts: present.noiseCounts,
                    spanCounts: probeScale(garden, channel).spanCounts,
                  },
                ]
              : [];
          }),
          askedMember.channel.id,
        )
      : null;
  const ask = (probeId: string) => {
    session.handled();
    setAsked({
      probeId,
      before: new Map([...live.present].map(([id, present]) => [id, present.rawCounts])),
    });
  };
  const isRight = answer?.kind === 'right';
  const keep = useEffectEvent(() => {
    if (!askedMember) return;
    const { id, label } = askedMember.probe;
    const provedAt = isoOf(live.nowMs);
    void commit(
      `label ${label} proved`,
      (before) => ({ garden: setLabelProved(before, id, provedAt) }),
      `${label} is ${label}: its own channel moved.`,
    ).then(() => setAsked(null));
  });
  useEffect(() => {
    if (isRight) keep();
  }, [isRight]);
  const moved =
    answer?.kind === 'swapped' ? members.find(({ channel }) => channel.id === answer.movedId) : undefined;
  const exchange = () => {
    if (!moved || !askedMember) return;
    setAsked(null);
    void commit(
      `exchange ${askedMember.probe.label} and ${moved.probe.label}`,
      (before) => ({ garden: swapStreams(before, askedMember.channel.id, moved.channel.id) }),
      `${askedMember.probe.label} and ${moved.probe.label} have exchanged their inputs. Dip once more to prove it.`,
    );
  };
  const unproved = members.filter(({ probe }) => probe.labelProvedAt === null);
  return (
    <section aria-label="Labels" className="mt-5 border-t border-rule pt-3">
      <h2>
        {unproved.length === 0
          ? 'Every label is proved'
          : `Before anything is buried: ${unproved.length} ${unproved.length === 1 ? 'label' : 'labels'} to prove`}
      </h2>
      <p className="text-soft">
        All of them in air. Ask for a label, dip the one that carries it; the channel that moves must be its
        own.
      </p>
      <ul className="mt-1 flex flex-wrap gap-x-6 gap-y-2">
        {members.map(({ probe, channel }) => (
          <li key={probe.id} className="flex items-center gap-2">
            <ColourFlag colour={probe.colour} />
            <b className="font-semibold">{probe.label}</b>
            <span className="text-[13.5px] text-soft">
              {probe.labelProvedAt === null
                ? 'not proved'
                : `proved ${dayText(Date.parse(probe.labelProvedAt), garden.timeZone)}`}
            </span>
            <Button disabled={!live.present.has(channel.id)} onClick={() => ask(probe.id)}>
              Ask for {probe.label}
            </Button>
            {hands && asked && (
              <Button
                onClick={() => {
                  hands.move(probe.id, 'jar');
                  session.refresh();
                }}
              >
                Dip {probe.label}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {asked && askedMember && (
        <div role="status" className="mt-2 border-l-[3px] border-handle pl-3">
          <p className="text-[17px]">
            Dip the one you call <b className="font-semibold">{askedMember.probe.label}</b>
            {askedMember.probe.colour !== 'none' && `, the one with the ${askedMember.probe.colour} tag`}.
          </p>
          {answer?.kind === 'several' && (
            <p>More than one moved. Lift all of them out, wipe them dry, and ask again.</p>
          )}
          {moved && (
            <p className="flex flex-wrap items-center gap-3">
              <b className="font-semibold text-handle">
                {moved.probe.label} moved, not {askedMember.probe.label}.
              </b>{' '}
              Plugs or labels are swapped: change them on the bench, or
              <Button onClick={exchange}>Exchange their inputs here</Button>
            </p>
          )}
          <button type="button" className="press underline underline-offset-4" onClick={() => setAsked(null)}>
            Stop asking
          </button>
        </div>
      )}
    </section>
  );
}
