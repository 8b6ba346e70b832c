import { strToU8, zipSync } from 'fflate';
import { useMemo, useState } from 'react';
import type { BoardPlan, SketchProblem } from '@plain-trowel/core/sketch/plan';
import type { Finding } from '@plain-trowel/core/wiring/finding';
import { useGarden } from '../../../data/gardenContext.ts';
import { saveWritten } from '../../../data/loadedPrograms.ts';
import { download, fileNameOf } from '../../../data/download.ts';
import { Button } from '../../../ui/Button.tsx';
import { CopyButton } from '../../../ui/CopyButton.tsx';
import { Field } from '../../../ui/Field.tsx';
import { doesText, keepsText, problemText } from '../../../words/sketchText.ts';
import { BenchCheck } from './BenchCheck.tsx';
import { BoardConsole } from './BoardConsole.tsx';
import { BoardNetwork } from './BoardNetwork.tsx';
import { CodeView, type Wanted } from './CodeView.tsx';
import { Loading } from './Loading.tsx';
import { LoadOntoBoard } from './LoadOntoBoard.tsx';
import { RestsFirst, Sleeps } from './ProgramNotes.tsx';
import { RunHere } from './RunHere.tsx';
import { OnTheBoard } from './OnTheBoard.tsx';
import { forCpp } from '@plain-trowel/core/sketch/fits';
import { cppProgramName } from '@plain-trowel/core/sketch/cpp';
import { programName } from '@plain-trowel/core/sketch/python';
import { FarNote } from './FarNote.tsx';
import { usePlan } from '../../plan/usePlan.ts';
import { useVerdict } from '../../plan/wiring/useVerdict.ts';
import { pythonProgram, sketchFiles, zipEntries, type Language } from './sketchFiles.ts';

const today = () => new Date().toISOString().slice(0, 10);

/** At least so much is a reason. */
const LEAST_REASON = 10;

/** The files of a program. A wiring with an open danger gets none before somebody has written why all the same. */
export function Program({
  boardId,
  plan,
  language,
  wanted,
}: {
  readonly boardId: string;
  readonly plan: BoardPlan;
  readonly language: Language;
  /** The setting that somebody wants to see in the code. */
  readonly wanted: Wanted | null;
}) {
  const { verdict, failed } = useVerdict(usePlan());
  const [reason, setReason] = useState('');
  const dangers = verdict?.findings.filter((one) => one.severity === 'danger') ?? [];
  if (failed)
    return (
      <p className="mt-4">The wiring could not be judged, so no program is shown. Load the page again.</p>
    );
  if (!verdict) return <p className="mt-4 text-soft">Checking the wiring …</p>;
  const isHeld = dangers.length > 0 && reason.trim().length < LEAST_REASON;
  return (
    <>
      {dangers.length > 0 && <Danger dangers={dangers} reason={reason} onReason={setReason} />}
      {!isHeld && (
        <Files
          boardId={boardId}
          plan={plan}
          language={language}
          wanted={wanted}
          known={dangers.length > 0 ? reason.trim() : ''}
        />
      )}
    </>
  );
}

function Danger({
  dangers,
  reason,
  onReason,
}: {
  readonly dangers: readonly Finding[];
  readonly reason: string;
  readonly onReason: (reason: string) => void;
}) {
  return (
    <section
      role="alert"
      aria-label="Danger in the wiring"
      className="mt-4 border-l-[3px] border-handle pl-3"
    >
      <p className="max-w-[68ch] font-semibold">
        The wiring has {dangers.length === 1 ? 'a danger' : `${dangers.length} dangers`} that nobody has
        solved.
      </p>
      <ul className="mt-1 max-w-[76ch]">
        {dangers.slice(0, 3).map((one) => (
          <li key={one.says}>{one.says}</li>
        ))}
      </ul>
      <Field
        label="I know, and this is why the program may be written all the same"
        className="mt-2 max-w-[620px]"
      >
        {(props) => (
          <input
            {...props}
            className="field w-full"
            value={reason}
            onChange={(event) => onReason(event.target.value)}
          />
        )}
      </Field>
    </section>
  );
}

/** Channels, lamps and displays that this program does nothing with, each with why. */
function LeftOut({ all }: { readonly all: readonly SketchProblem[] }) {
  if (all.length === 0) return null;
  return (
    <details className="mt-1 max-w-[76ch] text-[14.5px]">
      <summary className="press py-1">
        {all.length === 1 ? 'One thing is left out' : `${all.length} things are left out`}
      </summary>
      <ul>
        {all.map((one) => (
          <li key={one.kind + one.what}>{problemText(one)}</li>
        ))}
      </ul>
    </details>
  );
}

function Files({
  boardId,
  plan: whole,
  language,
  wanted,
  known,
}: {
  readonly boardId: string;
  readonly plan: BoardPlan;
  readonly language: Language;
  readonly wanted: Wanted | null;
  /** Why a danger in the wiring is accepted; empty: there is none. */
  readonly known: string;
}) {
  const plan = useMemo(() => (language === 'C++' ? forCpp(whole) : whole), [language, whole]);
  const folder = fileNameOf(plan.board).replace(/-/g, '_');
  const files = useMemo(
    () => sketchFiles(language, plan, folder, today(), known),
    [language, plan, folder, known],
  );
  const [open, setOpen] = useState('');
  const names = useMemo(
    () => ({ 'C++': cppProgramName(forCpp(whole)), MicroPython: programName(whole) }),
    [whole],
  );
  const file = files.find((one) => one.name === open) ?? files[0];
  const { garden } = useGarden();
  // Which of those that were taken runs on the board, it says itself.
  const remember = () => {
    const sketch = files.find(({ isOwn }) => isOwn);
    if (language === 'C++' && sketch)
      saveWritten(garden.id, boardId, { name: names['C++'], text: sketch.text });
  };
  const save = () => {
    remember();
    const entries = zipEntries(language, plan, folder, files, Math.floor(Date.now() / 60_000)).map(
      ([path, text]) => [path, strToU8(text)] as const,
    );
    const zip = zipSync(Object.fromEntries(entries));
    download(`${folder}.zip`, new Blob([new Uint8Array(zip)]), 'application/zip');
  };
  return (
    <>
      <p className="mt-4 max-w-[68ch] text-[17px]">
        {doesText(plan)} At the serial line, 115 200 baud, it prints what this page reads, and <code>?</code>{' '}
        shows its console.
      </p>
      {plan.lines.length > 0 && (
        <p className="mt-1 max-w-[68ch]">
          Try it with the pump’s tube in the tank, and stay for the first run.
        </p>
      )}
      <details className="mt-1 max-w-[76ch] text-[14.5px]">
        <summary className="press py-1">What it keeps through a reboot, and what watches over it</summary>
        <p>{keepsText(plan, language)}</p>
      </details>
      {plan.sleep && <Sleeps sleep={plan.sleep} />}
      <OnTheBoard boardId={boardId} plan={whole} names={names} />
      <FarNote plan={plan} />
      <LeftOut all={plan.leftOut} />
      {language === 'MicroPython' && (
        <RunHere boardId={boardId} plan={plan} program={() => pythonProgram(plan, today(), known)} />
      )}
      {language === 'C++' && plan.network && <RestsFirst />}
      {language === 'MicroPython' && <BoardNetwork boardId={boardId} plan={plan} />}
      <BoardConsole boardId={boardId} hasLamps={plan.lamps.length > 0} />
      {language === 'MicroPython' && (
        <LoadOntoBoard boardId={boardId} program={() => pythonProgram(plan, today(), known)} />
      )}
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Button look={language === 'MicroPython' ? 'plain' : 'primary'} onClick={save}>
          Save all files as a zip
        </Button>
        {file && <CopyButton text={file.text} label={`Copy ${file.name}`} onCopied={remember} />}
      </div>
      <nav aria-label="Files" className="mt-4 flex flex-wrap gap-x-6 border-b border-rule">
        {files.map((one) => (
          <button
            key={one.name}
            type="button"
            aria-current={one.name === file?.name ? 'page' : undefined}
            className={`press -mb-px border-b-2 pt-1 pb-1.5 font-mono text-[14px] ${
              one.name === file?.name ? 'border-handle font-semibold' : 'border-transparent text-soft'
            }`}
            onClick={() => setOpen(one.name)}
          >
            {one.name}
          </button>
        ))}
      </nav>
      {file && (
        <>
          <p className="mt-2 text-[13.5px] text-soft">
            {file.isOwn ? 'Written from this garden.' : 'The same on every board.'}{' '}
            {file.text.split('\n').length} lines.
          </p>
          <CodeView key={file.name} file={file} language={language} wanted={wanted} />
        </>
      )}
      <Loading language={language} hasSecrets={plan.network !== null} />
      <BenchCheck boardId={boardId} plan={plan} name={names[language]} />
    </>
  );
}
