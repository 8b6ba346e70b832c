import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import { contradictions, dayBudget } from '@plain-trowel/core/garden/bind/contradictions';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { leadersOf, newProgram, withProgram } from '@plain-trowel/core/garden/edits/newProgram';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { PROGRAM_KINDS, type ProgramKind } from '@plain-trowel/core/control/programs/programs';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { Select } from '../../../../ui/Select.tsx';
import { budgetText } from '../../../../words/contradictionText.ts';
import { PROGRAM_WORDS } from '../../../../words/programText.ts';
import { Standing } from '../../Standing.tsx';
import { AnswerPanel } from '../AnswerPanel.tsx';
import { ConditionList } from './ConditionList.tsx';
import { DayTimeline } from './DayTimeline.tsx';
import { InTheCode } from '../../InTheCode.tsx';
import { Guarded } from './Guarded.tsx';
import { DoseGuards, ProbeGuards } from './guards.tsx';
import { LineFields } from './LineFields.tsx';
import { ProgramFields } from './fields/ProgramFields.tsx';
import { ProbeFields } from './ProbeFields.tsx';
import { ProgramSentence } from './ProgramSentence.tsx';
import { WaterFields } from './WaterFields.tsx';
import { useLine } from './useLine.ts';

/** How a plot's water line decides: in a sentence, on yesterday's readings, and in all its numbers. */
export function ProgramView({ parts }: { parts: PlotParts }) {
  const { garden } = useGarden();
  const lines = garden.waterLines.filter((one) => one.plotId === parts.plot.id);
  const [wanted, setWanted] = useState('');
  const line = byId(lines, wanted) ?? lines[0];
  if (!line)
    return (
      <p className="max-w-[64ch]">
        Nothing waters {parts.plot.name} but a person, so it needs no program: its lamp and its alerts say
        when. Give it a pump or a valve under <b className="font-semibold">Change this plot</b> on the Readout
        sheet; here it then gets its program.
      </p>
    );
  return (
    <>
      {lines.length > 1 && (
        <Select
          label="Water line"
          className="mb-3 max-w-[280px]"
          groups={[{ name: '', options: lines.map((one) => ({ value: one.id, label: one.name })) }]}
          value={line.id}
          onChange={setWanted}
        />
      )}
      <ProgramOfLine key={line.id} parts={parts} line={line} isOnly={lines.length === 1} />
    </>
  );
}

function ProgramOfLine({ parts, line, isOnly }: { parts: PlotParts; line: WaterLine; isOnly: boolean }) {
  const { garden } = useGarden();
  const standing = contradictions(garden, line);
  const { problem, keep } = useLine(line);
  const runs = line.program.kind !== 'alert-only';
  // The timeline is of yesterday: a minute more or less does not matter to it.
  const minuteMs = useLive(({ nowMs }) => Math.floor(nowMs / 60_000) * 60_000);
  return (
    <>
      <ProgramSentence parts={parts} line={line} />
      <Budget line={line} />
      <Standing
        lead={`${line.name} waters nothing by itself until ${standing.length === 1 ? 'this is' : 'these are'} solved.`}
        all={standing}
      />
      {runs && <DayTimeline parts={parts} line={line} nowMs={minuteMs} />}
      <AnswerPanel parts={{ ...parts, line }} />
      <Guarded title="How it decides" guards={<DoseGuards line={line} />}>
        <KindField line={line} />
        <ProgramFields key={line.program.kind} line={line} />
      </Guarded>
      <Guarded title="What it goes by" guards={<ProbeGuards line={line} scale={parts.fit} />}>
        <ProbeFields parts={parts} line={line} />
      </Guarded>
      {runs && (
        <Guarded
          title="Only when"
          guards={
            <p className="col-span-2 text-[14px] text-soft md:col-span-1">
              What a condition needs and nobody can tell holds the line. Outputs are off at boot and on any
              error.
            </p>
          }
        >
          <ConditionList about={line} problem={problem} keep={keep} />
        </Guarded>
      )}
      <Guarded
        title="Where the water comes from"
        guards={
          <p className="col-span-2 text-[14px] text-soft md:col-span-1">
            A low or unknown reservoir stops at once. Only one line of a board runs at a time, so that the
            currents of two pumps never add up.
          </p>
        }
      >
        <WaterFields line={line} />
      </Guarded>
      {runs && <InTheCode line={line} fields={IN_THE_CODE} />}
      <LineFields line={line} isOnly={isOnly} />
    </>
  );
}

/** Guards by their words, and how the board's program calls them. */
const IN_THE_CODE = {
  'maximum run': 'max_run_s',
  'daily maximum': 'daily_max_ml',
  'minimum interval': 'min_interval_s',
  'rise that a dose must bring': 'rise_tenths',
  flow: 'flow_ml_per_min',
} as const;

/** What a day may ask for beside what it allows. */
function Budget({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const budget = dayBudget(garden, line);
  return budget && <p className="mt-1 max-w-[68ch] text-[14.5px] text-soft">{budgetText(budget)}</p>;
}

function KindField({ line }: { line: WaterLine }) {
  const { garden } = useGarden();
  const { keep } = useLine(line);
  const kinds = PROGRAM_KINDS.filter(
    (kind) => kind !== 'follower' || line.program.kind === 'follower' || leadersOf(garden, line).length > 0,
  );
  const change = (kind: ProgramKind) => {
    const program = newProgram(kind, line, garden);
    if (!program) return;
    const { laidAside } = withProgram(line, program);
    keep('program', { program, laidAside });
  };
  return (
    <div className="mt-2" data-said="program">
      <Select
        label={`How ${line.name} decides`}
        className="max-w-[320px]"
        groups={[
          { name: '', options: kinds.map((kind) => ({ value: kind, label: PROGRAM_WORDS[kind].name })) },
        ]}
        value={line.program.kind}
        onChange={change}
      />
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">{PROGRAM_WORDS[line.program.kind].when}</p>
    </div>
  );
}
