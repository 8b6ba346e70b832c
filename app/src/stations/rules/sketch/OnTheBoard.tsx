import { useState } from 'react';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { calibrationOf } from '@plain-trowel/core/garden/bind/decided';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { byId } from '@plain-trowel/core/quantity/byId';
import { unitOf } from '@plain-trowel/core/sketch/heading';
import { frameNameOf } from '@plain-trowel/core/sketch/folder';
import {
  contactKey,
  heldBy,
  lampKey,
  probeKey,
  settingChanges,
  toType,
} from '@plain-trowel/core/sketch/settable';
import { cppSketch } from '@plain-trowel/core/sketch/cpp';
import { forCpp } from '@plain-trowel/core/sketch/fits';
import { pythonSettings } from '@plain-trowel/core/sketch/python';
import { useGarden } from '../../../data/gardenContext.ts';
import { readLoaded, readWritten } from '../../../data/loadedPrograms.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { changeText } from '../../../words/loadText.ts';
import { LeaveSettings } from './LeaveSettings.tsx';
import { LANGUAGES, type Language } from './sketchFiles.ts';
import { useAskBoard } from './useAskBoard.ts';
import { WhatChanged } from './WhatChanged.tsx';

/** What the connected board runs, compared with what the garden would have it run; limits that differ are sent over the line. */
export function OnTheBoard({
  boardId,
  plan: whole,
  names,
}: {
  readonly boardId: string;
  readonly plan: BoardPlan;
  /** Of the program that the garden would have it run, by language. */
  readonly names: Readonly<Record<Language, string>>;
}) {
  const { garden } = useGarden();
  const board = useLive(({ source }) => source?.boardAt(boardId) ?? null);
  if (!board) return null;
  const { program } = board;
  const runs = LANGUAGES.find((one) => frameNameOf(names[one]) === frameNameOf(program.name));
  const plan = runs === 'C++' ? forCpp(whole) : whole;
  const changes = settingChanges(plan, program.limits);
  return (
    <section aria-label="On the board now" className="mt-3 max-w-[76ch] border-l-[3px] border-ink pl-3">
      {runs === undefined ? (
        <>
          <p>
            <b className="font-semibold">The board runs another program than this one</b> ({program.name};
            this is {names.MicroPython} in MicroPython, {names['C++']} in C++): pins, guards, pauses or a kind
            of program have changed since. What it does is what it was given then, until this one is loaded.
          </p>
          <ul className="mt-2">
            {changes.map((one) => (
              <li key={one.lineId + one.name}>{changeText(one, unitOfLine(garden, plan, one.lineId))}</li>
            ))}
          </ul>
          <Since gardenId={garden.id} boardId={boardId} name={program.name} plan={whole} />
        </>
      ) : heldBy(plan).some(({ id }) => program.limits[id] === undefined) ? (
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
          {board.isAtItsConsole ? (
            <Send plan={plan} boardId={boardId} />
          ) : (
            <LeaveSettings plan={plan} board={board} keeps={runs !== 'C++'} />
          )}
        </>
      )}
    </section>
  );
}

/** What has changed since the program that runs there was loaded, or taken to be compiled; nothing where this browser does not know it. */
function Since({
  gardenId,
  boardId,
  name,
  plan,
}: {
  readonly gardenId: string;
  readonly boardId: string;
  readonly name: string;
  readonly plan: BoardPlan;
}) {
  const loaded = readLoaded(gardenId, boardId);
  if (loaded?.name === name) return <WhatChanged before={loaded.text} after={pythonSettings(plan, '')} />;
  const written = readWritten(gardenId, boardId, name);
  return written && <WhatChanged before={written.text} after={cppSketch(forCpp(plan), '')} />;
}

/** What the limits of a line, a contact or a lamp stand in, or a probe's calibration: "% span". */
function unitOfLine(garden: Garden, plan: BoardPlan, id: string): string {
  const { engine } = plan;
  const at = (key: (number: number) => string, count: number) =>
    Array.from({ length: count }, (_, place) => place).find((place) => key(place + 1) === id) ?? -1;
  const source = plan.sources[at(probeKey, engine.sensors.length)];
  const input = source?.by === 'one' ? plan.inputs[source.input] : undefined;
  const channel = byId(garden.channels, input?.channelId ?? null);
  const kind = channel && calibrationOf(garden, channel)?.percentKind;
  if (kind) return unitOf(kind);
  const watch = plan.watches[at(lampKey, plan.watches.length)];
  const contact = plan.contacts[at(contactKey, plan.contacts.length)];
  const plotId =
    byId(garden.waterLines, id)?.plotId ??
    byId(garden.contacts, contact?.id ?? null)?.plotId ??
    garden.plots.find(({ name }) => name === watch?.plot)?.id;
  const fit = plotId === undefined ? null : plotParts(garden, plotId)?.fit;
  return fit ? unitOf(fit.percentKind) : '%';
}

/** Types the settings one after the other and waits for each answer; what the board refuses is shown in its words. */
function Send({ plan, boardId }: { readonly plan: BoardPlan; readonly boardId: string }) {
  const { board: boardNow, ask } = useAskBoard(boardId);
  const [said, setSaid] = useState<readonly string[]>([]);
  const [isAtWork, setAtWork] = useState(false);
  const send = async () => {
    setAtWork(true);
    const refused: string[] = [];
    const board = boardNow();
    const limits = board?.program.limits ?? {};
    const steps = toType(plan, settingChanges(plan, limits), limits, (id) => board?.numberOf(id) ?? null);
    let isBroken = false;
    for (const { text, about, isNeeded } of steps) {
      const why = await ask(text);
      if (why === null) continue;
      refused.push(`${about}: ${why}`);
      // Limits in a percent that the board does not have would mean something else.
      isBroken = isNeeded;
      if (isBroken) break;
    }
    const kept = refused.length === 0 ? await ask('save') : null;
    board?.type('limits');
    setSaid([
      ...refused.map((one) => `The board refused ${one}.`),
      ...(isBroken
        ? [
            'Nothing more was sent. Lines that water by this probe may stand switched off on the board: load the program.',
          ]
        : []),
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
