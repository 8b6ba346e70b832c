import { useState } from 'react';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { byId } from '@plain-trowel/core/quantity/byId';
import { unitOf } from '@plain-trowel/core/sketch/heading';
import { frameNameOf } from '@plain-trowel/core/sketch/folder';
import { inSafeOrder, lampKey, settingChanges } from '@plain-trowel/core/sketch/settable';
import { pythonSettings } from '@plain-trowel/core/sketch/python';
import { useGarden } from '../../../data/gardenContext.ts';
import { readLoaded } from '../../../data/loadedPrograms.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { changeText } from '../../../words/loadText.ts';
import { WhatChanged } from './WhatChanged.tsx';

const ANSWER_MS = 2000;
const LOOK_MS = 50;

/** What the connected board runs, compared with what the garden would have it run; limits that differ are sent over the line. */
export function OnTheBoard({
  boardId,
  plan,
  name,
  otherName,
}: {
  readonly boardId: string;
  readonly plan: BoardPlan;
  /** Of the program that the garden would have it run. */
  readonly name: string;
  /** Of the same program in the other language. */
  readonly otherName: string;
}) {
  const { garden } = useGarden();
  const board = useLive(({ source }) => source?.board ?? null);
  if (!board || board.boardId !== boardId) return null;
  const { program } = board;
  const loaded = readLoaded(garden.id, boardId);
  const frame = frameNameOf(program.name);
  const isSameFrame = frame === frameNameOf(name) || frame === frameNameOf(otherName);
  const changes = settingChanges(plan, program.limits);
  return (
    <section aria-label="On the board now" className="mt-3 max-w-[76ch] border-l-[3px] border-ink pl-3">
      {!isSameFrame ? (
        <>
          <p>
            <b className="font-semibold">The board runs another program than this one</b> ({program.name};
            this is {name}): pins, guards, a calibration or a kind of program have changed since. What it does
            is what it was given then, until this one is loaded.
          </p>
          <ul className="mt-2">
            {changes.map((one) => (
              <li key={one.lineId + one.name}>{changeText(one, unitOfLine(garden, plan, one.lineId))}</li>
            ))}
          </ul>
          {loaded?.name === program.name && (
            <WhatChanged before={loaded.text} after={pythonSettings(plan, '')} />
          )}
        </>
      ) : Object.keys(program.limits).length < plan.lines.length + plan.watches.length ? (
        <p>Asking the board for its limits …</p>
      ) : changes.length === 0 ? (
        <p>
          The board runs this very program, with these limits
          {program.number > 0 ? ` (its program ${program.number})` : ''}.
        </p>
      ) : (
        <>
          <p className="font-semibold">
            The board runs this program with other {changes.length === 1 ? 'setting' : 'settings'}.
          </p>
          <ul className="mt-1">
            {changes.map((one) => (
              <li key={one.lineId + one.name}>{changeText(one, unitOfLine(garden, plan, one.lineId))}</li>
            ))}
          </ul>
          <Send plan={plan} boardId={boardId} />
        </>
      )}
    </section>
  );
}

/** What the limits of a line stand in: "% span". */
function unitOfLine(garden: Garden, plan: BoardPlan, lineId: string): string {
  const line = byId(garden.waterLines, lineId);
  const lamp = plan.watches.findIndex((_, at) => lampKey(at + 1) === lineId);
  const plotId = line?.plotId ?? garden.plots.find(({ name }) => name === plan.watches[lamp]?.plot)?.id;
  const fit = plotId === undefined ? null : plotParts(garden, plotId)?.fit;
  return fit ? unitOf(fit.percentKind) : '%';
}

/** Types the settings one after the other and waits for each answer; what the board refuses is shown in its words. */
function Send({ plan, boardId }: { readonly plan: BoardPlan; readonly boardId: string }) {
  const { session } = useLiveTools();
  const [said, setSaid] = useState<readonly string[]>([]);
  const [isAtWork, setAtWork] = useState(false);
  const ask = async (text: string): Promise<string | null> => {
    const now = () => session.getSnapshot().source?.board ?? null;
    const before = now();
    if (before?.boardId !== boardId) return 'the board is gone';
    const count = before.program.answer?.count ?? 0;
    before.type(text);
    for (let waitedMs = 0; waitedMs < ANSWER_MS; waitedMs += LOOK_MS) {
      await new Promise((done) => setTimeout(done, LOOK_MS));
      const answer = now()?.program.answer;
      if (answer && answer.count > count) return answer.said.kind === 'refused' ? answer.said.why : null;
    }
    return 'no answer came';
  };
  const send = async () => {
    setAtWork(true);
    const refused: string[] = [];
    const board = session.getSnapshot().source?.board;
    for (const { lineId, name, inGarden } of inSafeOrder(settingChanges(plan, board?.program.limits ?? {}))) {
      // Of lamps the key is what is typed.
      const whose = name === 'dry' || name === 'wet' ? lineId : (board?.numberOf(lineId) ?? 0);
      const why = await ask(`set ${whose} ${name} ${inGarden}`);
      if (why !== null) refused.push(`${name} ${inGarden}: ${why}`);
    }
    const kept = refused.length === 0 ? await ask('save') : null;
    board?.type('limits');
    setSaid([
      ...refused.map((one) => `The board refused ${one}.`),
      ...(kept === null ? [] : [`It holds until the board’s next reboot and is not kept: ${kept}.`]),
    ]);
    setAtWork(false);
  };
  return (
    <>
      <Button className="mt-2" disabled={isAtWork} onClick={() => void send()}>
        {isAtWork ? 'Sending …' : 'Send the garden’s to the board'}
      </Button>
      {said.length > 0 && (
        <ul role="alert" className="mt-1">
          {said.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
    </>
  );
}
