import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useState } from 'react';
import { setFirstTest } from '@plain-trowel/core/garden/edits/bench';
import { fullScaleOf } from '@plain-trowel/core/garden/bind/channels';
import { type TestStep } from '@plain-trowel/core/garden/document/probeSchema';
import { DECIDING_KINDS } from '@plain-trowel/core/quantity/probeKind';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { compareSideBySide, misplaced } from '@plain-trowel/core/sideBySide/compare';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { DipCheck } from './DipCheck.tsx';
import { membersOf } from './members.ts';
import { SideBySideTable } from './SideBySideTable.tsx';
import { hasStopped } from '@plain-trowel/core/settling/settlingWatch';
import { StepPicture } from '../../calibrate/StepPicture.tsx';

/** All probes of a kind in the same air and the same jar; then each by its label, before anything is buried. */
export function SideBySideView() {
  const { garden, commit } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const hands = live.source?.hands ?? null;
  const kinds = DECIDING_KINDS.filter((kind) => membersOf(garden, kind).length > 0);
  const [wanted, setWanted] = useState<string | null>(null);
  const [refused, setRefused] = useState<{ step: 'air' | 'water'; names: readonly string[] } | null>(null);
  const kind = kinds.find((one) => one === wanted) ?? kinds[0];
  if (!kind) return <p>There is no analog probe in this garden yet.</p>;
  const members = membersOf(garden, kind);
  const probes = members.map(({ probe, channel }) => {
    const reading = (step: TestStep) => {
      const result = probe.firstTest[step];
      return result && { counts: result.rawCounts, noiseCounts: result.noiseCounts };
    };
    return {
      id: probe.id,
      fullScaleCounts: fullScaleOf(garden, channel),
      air: reading('air'),
      jar: reading('water'),
    };
  });
  const compared = compareSideBySide(probes);
  const here = members.filter(({ channel }) => live.present.has(channel.id));
  const moving = here.filter(({ channel }) => !hasStopped(live.settling.get(channel.id)?.verdict));
  const take = (step: 'air' | 'water') => {
    const takenAt = isoOf(live.nowMs);
    const now = new Map(
      here.map(({ probe, channel }) => [probe.id, live.present.get(channel.id)?.rawCounts ?? Number.NaN]),
    );
    const astray = misplaced(probes, step === 'air' ? 'air' : 'jar', now);
    const placed = here.filter(({ probe }) => !astray.includes(probe.id));
    const names = here.filter(({ probe }) => astray.includes(probe.id)).map(({ probe }) => probe.label);
    setRefused(names.length > 0 ? { step, names } : null);
    if (placed.length === 0) return;
    void commit(
      `${step === 'air' ? 'air' : 'jar'} of ${placed.length} probes`,
      (before) => ({
        garden: placed.reduce((next, { probe, channel }) => {
          const present = live.present.get(channel.id);
          return present
            ? setFirstTest(next, probe.id, step, {
                rawCounts: present.rawCounts,
                noiseCounts: present.noiseCounts,
                takenAt,
                simulated: live.source?.simulated ?? false,
              })
            : next;
        }, before),
      }),
      `${placed.length} probes taken in ${step === 'air' ? 'air' : 'the jar'}.`,
    );
  };
  const moveAll = (place: 'air' | 'jar') => {
    for (const { probe } of here) hands?.move(probe.id, place);
    session.handled();
    session.refresh();
  };
  const odd = compared.rows.filter((row) => row.odd !== null).length;
  return (
    <>
      <div className="flex flex-wrap items-center gap-4">
        <h2 className="mr-auto">
          {compared.spreadFrac === null
            ? `${members.length} of this kind; take them in air and in one jar`
            : odd > 0
              ? `${odd} of ${members.length} ${odd === 1 ? 'is' : 'are'} unlike the others`
              : `Alike within ± ${formatNumber(100 * compared.spreadFrac, 1)} % of their span`}
        </h2>
        {kinds.length > 1 && (
          <Choice
            legend="Kind"
            options={kinds.map((one) => ({ value: one, label: one }))}
            value={kind}
            onChange={setWanted}
          />
        )}
      </div>
      <SideBySideTable members={members} compared={compared} />
      {members.length === 2 && (
        <p className="text-soft">
          With two of a kind a difference can be seen, and nobody can say which of them is wrong. A third
          decides.
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-4">
        {(['air', 'water'] as const).map((step) => (
          <figure key={step} className="flex items-center gap-3">
            <StepPicture condition={step} />
            <figcaption className="max-w-[150px] text-[14px] text-soft">
              {step === 'air'
                ? 'All of them in air, wiped dry, side by side.'
                : 'All of them in one jar, each up to its line.'}
            </figcaption>
          </figure>
        ))}
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button
          look={moving.length === 0 ? 'primary' : 'plain'}
          disabled={here.length === 0}
          onClick={() => take('air')}
        >
          Take all in air
        </Button>
        <Button
          look={moving.length === 0 ? 'primary' : 'plain'}
          disabled={here.length === 0}
          onClick={() => take('water')}
        >
          Take all in the jar
        </Button>
        {hands && (
          <>
            <Button onClick={() => moveAll('air')}>Stand-ins into air</Button>
            <Button onClick={() => moveAll('jar')}>Stand-ins into one jar</Button>
          </>
        )}
        <span className="text-[14px] text-soft">
          {here.length === 0
            ? 'No reading comes in. Connect the board first.'
            : moving.length > 0
              ? `Not at rest yet: ${moving.map(({ probe }) => probe.label).join(', ')}.`
              : 'All at rest.'}
        </span>
      </div>
      {refused && (
        <p role="alert" className="mt-2 max-w-[72ch] border-l-[3px] border-handle pl-3">
          Not taken: {refused.names.join(', ')}.{' '}
          {refused.step === 'air'
            ? 'It reads almost what it read in the jar: it is not in air, or still wet. Wipe it, hold it in air, and take all again.'
            : 'It reads almost what it read in air: it is not in the jar. Put it in up to its line, and take all again.'}
        </p>
      )}
      <DipCheck key={kind} members={members} />
    </>
  );
}
