import { useState } from 'react';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { reasonText } from '../../../words/reasonText.ts';

const LOOK_MS = 100;
/** What the board may take beyond the run itself, ms. */
const LATE_MS = 6000;

type Outcome = { readonly text: string; readonly isWrong: boolean };

/** Runs the real pump for a trial, by the console of the board that switches it; its guards hold the run. */
export function RealPumpRun({
  line,
  runS,
  onRan,
}: {
  readonly line: WaterLine;
  readonly runS: number | null;
  /** How long it really ran, s. */
  readonly onRan: (ranS: number) => void;
}) {
  const { session } = useLiveTools();
  const board = useLive(({ source }) => source?.boardAt(line.boardId) ?? null);
  const isSimulated = useLive(({ source }) => source?.simulated === true);
  const [isAsking, setAsking] = useState(false);
  const [isRunning, setRunning] = useState(false);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const number = board?.numberOf(line.id) ?? null;
  // From afar nobody stands there with the jug.
  if (!board?.isAtItsConsole || number === null || isSimulated) return null;
  const wholeS = runS === null ? 0 : Math.round(runS);
  /** What the board has told of this line after its event of that number. */
  const toldSince = (seq: number) =>
    (session.getSnapshot().source?.boardAt(line.boardId)?.program.events ?? []).flatMap((one) =>
      one.seq > seq && one.said.kind === 'event' && one.said.line === number ? [one.said] : [],
    );
  const run = async () => {
    setAsking(false);
    setRunning(true);
    setOutcome(null);
    const seq = board.program.events.at(-1)?.seq ?? 0;
    board.type(`test pump ${number} ${wholeS}`);
    const found = await waitFor(
      () => toldSince(seq).find(({ told }) => told.kind === 'stopped' || told.kind === 'refused'),
      wholeS * 1000 + LATE_MS,
    );
    setRunning(false);
    if (!found) {
      setOutcome({ text: 'The board has not told that it ran. Look at it, and at its line.', isWrong: true });
    } else if (found.told.kind === 'stopped') {
      onRan(found.told.ranS);
      setOutcome({
        text: `It ran for ${found.told.ranS} s. Read the jug, and type in what came.`,
        isWrong: false,
      });
    } else {
      setOutcome({ text: `The board refused: ${reasonText(found.told.reason)}.`, isWrong: true });
    }
  };
  return (
    <>
      <Button disabled={wholeS < 1 || isRunning} onClick={() => setAsking(true)}>
        {isRunning ? 'It runs …' : `Run the real pump for ${wholeS} s`}
      </Button>
      {outcome && (
        <p
          role={outcome.isWrong ? 'alert' : 'status'}
          className="basis-full border-l-[3px] border-handle pl-3"
        >
          {outcome.text}
        </p>
      )}
      <Dialog
        open={isAsking}
        onClose={() => setAsking(false)}
        title={`Run ${line.name} for ${wholeS} s?`}
        description="Put the end of the tube into the jug, above the water of the tank so that it cannot siphon, keep the electronics away from it, and stay while it runs. The board’s guards hold this run too, and it counts in the day’s sum."
      >
        <div className="flex flex-wrap gap-3">
          <Button look="primary" onClick={() => void run()}>
            Run it
          </Button>
          <Button onClick={() => setAsking(false)}>Not now</Button>
        </div>
      </Dialog>
    </>
  );
}

async function waitFor<T>(look: () => T | undefined, longestMs: number): Promise<T | undefined> {
  for (let waitedMs = 0; waitedMs < longestMs; waitedMs += LOOK_MS) {
    const found = look();
    if (found !== undefined) return found;
    await new Promise((done) => setTimeout(done, LOOK_MS));
  }
  return look();
}
