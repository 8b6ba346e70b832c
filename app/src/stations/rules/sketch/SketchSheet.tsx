import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { byId } from '@plain-trowel/core/quantity/byId';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { cppProblems, forCpp, pythonProblems } from '@plain-trowel/core/sketch/fits';
import { useGarden } from '../../../data/gardenContext.ts';
import { Choice } from '../../../ui/Choice.tsx';
import { Select } from '../../../ui/Select.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { Missing } from './Missing.tsx';
import { Program } from './Program.tsx';
import { LANGUAGES, type Language } from './sketchFiles.ts';

const problemsIn = (language: Language, plan: BoardPlan) =>
  language === 'MicroPython' ? pythonProblems(plan) : cppProblems(forCpp(plan));

/** The program of a board, written from the garden. */
export default function SketchSheet() {
  const { garden } = useGarden();
  const [wanted, setWanted] = useState('');
  const [chosen, setChosen] = useState<Language | null>(null);
  const [params] = useSearchParams();
  const [field, lineId] = [params.get('field'), params.get('line')];
  const line = byId(garden.waterLines, lineId);
  const asked = useMemo(() => (field && line ? { field, of: line.name } : null), [field, line]);
  const board = byId(garden.boards, wanted) ?? byId(garden.boards, line?.boardId) ?? garden.boards[0];
  if (!board) return <EmptyGarden what="sketch" />;
  const planned = planBoard(garden, board.id);
  // Where the board can run it, the language that can be loaded and tried from here.
  const runsPython = planned.ok && pythonProblems(planned.plan).length === 0;
  const language = chosen ?? (runsPython ? 'MicroPython' : 'C++');
  const problems = !planned.ok ? planned.problems : problemsIn(language, planned.plan);
  return (
    <>
      <header className="mb-3 border-b border-ink pb-2.5">
        <h1>{`${board.name}: its program`}</h1>
        <p className="text-soft">{board.traits}</p>
      </header>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        {garden.boards.length > 1 && (
          <Select
            label="Board"
            className="w-[240px]"
            groups={[{ name: '', options: garden.boards.map((one) => ({ value: one.id, label: one.name })) }]}
            value={board.id}
            onChange={setWanted}
          />
        )}
        <Choice
          legend="Language"
          options={LANGUAGES.map((value) => ({ value, label: value }))}
          value={language}
          onChange={setChosen}
        />
      </div>
      {problems.length > 0 || !planned.ok ? (
        <Missing board={board.name} problems={problems} />
      ) : (
        <Program key={board.id} boardId={board.id} plan={planned.plan} language={language} wanted={asked} />
      )}
    </>
  );
}
