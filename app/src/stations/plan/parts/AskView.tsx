import { answerText, QUESTION_IDS, QUESTIONS, type Answers } from '@plain-trowel/core/plan/interview';
import { answersOf, probeCount } from '@plain-trowel/core/garden/bind/layOut';
import { suggest } from '@plain-trowel/core/plan/suggest';
import { Button } from '../../../ui/Button.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { NumberField } from '../../../ui/NumberField.tsx';
import type { usePlan } from '../usePlan.ts';
import { Distances } from './Distances.tsx';
import { Drawer } from './Drawer.tsx';
import { LayOut } from './LayOut.tsx';
import { TopicRanking } from './TopicRanking.tsx';

type PlanTools = ReturnType<typeof usePlan>;

/** Four topics with what leads, and the questions that decide. */
export function AskView({ plan }: { plan: PlanTools }) {
  const { answers } = plan.plan;
  const probes = probeCount(plan.garden);
  const suggestions = suggest(answersOf(plan.garden), probes, plan.plan.drawer);
  const answered = Object.values(answers).filter((one) => one !== null).length;
  // Zones are asked only where a timer is there.
  const total = Object.keys(answers).length - (answers.water === 'timer' ? 0 : 1);
  return (
    <>
      <h2>Take</h2>
      <div className="border-b border-rule">
        {suggestions.map((suggestion) => (
          <TopicRanking key={suggestion.topic} plan={plan} suggestion={suggestion} />
        ))}
      </div>
      <LayOut plan={plan} answered={answered} />
      <h2 className="mt-7 border-t border-ink pt-3">
        Questions{' '}
        <span className="num font-normal text-soft">
          {answered} of {total} answered
        </span>
      </h2>
      <Questions plan={plan} probes={probes} />
      <Distances plan={plan} />
      <Drawer plan={plan} />
    </>
  );
}

function Questions({ plan, probes }: { plan: PlanTools; probes: number }) {
  const { answers } = plan.plan;
  const answer = <Id extends keyof Answers>(id: Id, value: Answers[Id]) =>
    void plan.changePlan(`answer: ${id}`, (held) => ({ answers: { ...held.answers, [id]: value } }));
  return (
    <div className="mt-2">
      {QUESTION_IDS.map((id) => (
        <div
          key={id}
          className="grid gap-x-4 gap-y-1 border-t border-rule py-2 sm:grid-cols-[220px_1fr] sm:items-center"
        >
          <p>{QUESTIONS[id].asks}</p>
          <div className="flex flex-wrap items-center gap-3">
            <Choice
              legend={QUESTIONS[id].asks}
              options={Object.entries(QUESTIONS[id].answers).map(([value, label]) => ({ value, label }))}
              value={answers[id] ?? ''}
              onChange={(value) => answer(id, value as never)}
            />
            {answers[id] !== null && (
              <Button
                look="quiet"
                className="text-[13.5px]!"
                onClick={() => answer(id, null)}
                aria-label={`Clear the answer: ${answerText(id, answers[id])}`}
              >
                clear
              </Button>
            )}
          </div>
        </div>
      ))}
      <div className="grid max-w-[460px] grid-cols-2 gap-5 border-t border-rule pt-3">
        <NumberField
          label="Probes, in all"
          unit="probes"
          whole
          value={probes}
          least={1}
          most={60}
          onKeep={(value) => answer('probes', value)}
        />
        <div className="flex flex-col gap-1">
          <span className="text-[12.5px] font-semibold text-soft">Longest cable, one way</span>
          <span className="flex items-center gap-2">
            <CellNumber
              label="Longest cable, one way, in metres"
              value={answers.cableM}
              least={0}
              most={1000}
              decimals={1}
              onKeep={(value) => answer('cableM', value)}
            />
            <span className="text-[13.5px] text-soft">m</span>
          </span>
        </div>
        {answers.water === 'timer' && (
          <NumberField
            label="Zones that our board permits"
            unit="zones"
            whole
            value={answers.zones ?? 1}
            least={1}
            most={6}
            onKeep={(value) => answer('zones', value)}
          />
        )}
      </div>
    </div>
  );
}
