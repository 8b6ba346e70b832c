import { useMemo, useState } from 'react';
import { readGarden, writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { PUBLISHED_LETTERS, type Standing } from '@plain-trowel/core/protocol/feed';
import { sumOf } from '@plain-trowel/core/quantity/sumOf';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLiveTools } from '../../../../links/liveContext.ts';
import { gateway } from '../../../../links/gatewayClient.ts';
import { Button } from '../../../../ui/Button.tsx';
import { WhatDiffers } from './WhatDiffers.tsx';
import { gatewayIssueText } from '../../../../words/networkText.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

/** Whether the gateway knows this garden as it is now: its time zone, its boards, its limits. */
export function PublishLine({ standing, onChanged }: { standing: Standing; onChanged: () => void }) {
  const { garden, commit } = useGarden();
  const { browser } = useLiveTools();
  const [problem, setProblem] = useState<string | null>(null);
  const text = useMemo(() => writeGardenFile(garden), [garden]);
  const hash = useMemo(() => sumOf(text).slice(0, PUBLISHED_LETTERS), [text]);
  const { published } = standing;
  const isSame = published?.hash === hash;
  const publish = async () => {
    // Made from what stands on the screen: whoever publishes in between is not overwritten unseen.
    const done = await gateway.publish(garden.id, text, browser(), published?.revision ?? null);
    setProblem(done.ok ? null : gatewayIssueText(done.issue));
    onChanged();
  };
  /** The published garden; null where it cannot be had, and then it is said why. */
  const fetchTheirs = async (): Promise<Garden | null> => {
    const asked = await gateway.document(garden.id);
    const read = asked.ok ? readGarden(asked.value) : null;
    const isSound = read?.ok === true && read.value.id === garden.id;
    setProblem(
      !asked.ok
        ? gatewayIssueText(asked.issue)
        : isSound
          ? null
          : 'What lies at the gateway is no garden that this page can read.',
    );
    return isSound ? read.value : null;
  };
  const take = async () => {
    const theirs = await fetchTheirs();
    if (!theirs) return;
    await commit(
      'take the published garden',
      () => ({ garden: theirs }),
      'The published garden stands here now.',
    );
  };
  const [compared, setCompared] = useState<{ readonly revision: number; readonly garden: Garden } | null>(
    null,
  );
  const compare = async () => {
    const theirs = compared ? null : await fetchTheirs();
    setCompared(theirs && published ? { revision: published.revision, garden: theirs } : null);
  };
  return (
    <div className="flex w-full flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule pt-3">
      <p className="max-w-[60ch] flex-1 basis-[40ch] text-[14px]">
        {published === null
          ? 'This garden is not published: the gateway can tell its boards neither the local time nor when the sun rises, so timers and hours rest.'
          : isSame
            ? `Published as it is now (revision ${published.revision}, ${dayTime(published.atMs, garden.timeZone)}).`
            : `Published in another state (revision ${published.revision}, ${dayTime(published.atMs, garden.timeZone)}, by ${published.by || 'somebody'}). The gateway goes by that one until you publish this. Which of the two holds is yours to say; taking it here can be undone.`}
      </p>
      {!isSame && (
        <Button onClick={() => void publish()}>
          {published === null ? 'Publish this garden' : 'Publish it as it is here'}
        </Button>
      )}
      {published !== null && !isSame && (
        <Button look="quiet" onClick={() => void take()}>
          Take the published one here
        </Button>
      )}
      {published !== null && !isSame && (
        <Button look="quiet" onClick={() => void compare()}>
          {compared ? 'Hide what differs' : 'What differs'}
        </Button>
      )}
      {published !== null && !isSame && compared?.revision === published.revision && (
        <WhatDiffers published={compared.garden} />
      )}
      {problem !== null && (
        <p role="alert" className="w-full border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
    </div>
  );
}
