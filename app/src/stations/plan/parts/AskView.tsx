import { useNavigate } from 'react-router';
import { answerText, QUESTION_IDS, QUESTIONS, type Answers } from '@plain-trowel/core/plan/interview';
import { layOut, probeCount } from '@plain-trowel/core/garden/bind/layOut';
import { suggest } from '@plain-trowel/core/plan/suggest';
import { setWiring } from '@plain-trowel/core/garden/edits/plan';
import { planWiring } from '@plain-trowel/core/wiring/planWiring';
import { sheetPath } from '../../../frame/stations.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { NumberField } from '../../../ui/NumberField.tsx';
import type { usePlan } from '../usePlan.ts';
import { TopicRanking } from './TopicRanking.tsx';

type PlanTools = ReturnType<typeof usePlan>;

/** Four topics with what leads, and the questions that decide. */
export function AskView({ plan }: { plan: PlanTools }) {
  const { answers } = plan.plan;
  const probes = probeCount(plan.garden);
  const suggestions = suggest(answers, probes);
  const answered = Object.values(answers).filter((one) => one !== null).length;
  const total = Object.keys(answers).length;
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
    </>
  );
}

/** From answers to parts on the bench, wired and checked in one step. */
function LayOut({ plan, answered }: { plan: PlanTools; answered: number }) {
  const navigate = useNavigate();
  const has = plan.wiring.parts.length > 0;
  const wire = async () => {
    const laid = planWiring(layOut(plan.garden, plan.catalogue), plan.catalogue, plan.setting, {
      lengthM: plan.garden.plan.answers.cableM,
    });
    const [reason] = laid.refused;
    const saved = await plan.change(
      'parts laid out and wired',
      (garden) => setWiring(garden, laid.netlist),
      reason !== undefined
        ? `The parts are laid out, but not wired: ${reason}`
        : has
          ? 'The wiring was laid out again. Undo brings back the wiring as it was.'
          : 'Parts laid out, wired and checked.',
    );
    if (saved) void navigate(sheetPath(plan.garden.id, 'plan', 'wiring', null));
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Button look={has ? 'plain' : 'primary'} onClick={() => void wire()}>
        {has ? 'Lay out and wire again' : 'Lay out and wire these'}
      </Button>
      <p className="max-w-[46ch] text-[13.5px] text-soft">
        {answered === 0
          ? 'Without answers this is only the usual start.'
          : has
            ? 'Replaces the present wiring; Undo brings it back.'
            : 'Boards, probes and pumps of this garden, and what the choices above add.'}
      </p>
    </div>
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
        <NumberField
          label="Longest cable, one way"
          unit="m"
          whole={false}
          value={answers.cableM ?? 0}
          least={0}
          most={1000}
          onKeep={(value) => answer('cableM', value)}
        />
      </div>
    </div>
  );
}
