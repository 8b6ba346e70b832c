import { byId } from '@plain-trowel/core/quantity/byId';
import { Scroll } from '../../../ui/Scroll.tsx';
import { useState } from 'react';
import type { Candidate, Suggestion } from '@plain-trowel/core/plan/suggest';
import { Button } from '../../../ui/Button.tsx';
import { Field } from '../../../ui/Field.tsx';
import { candidateName, TOPIC_NAMES } from '../../../words/candidateText.ts';
import type { usePlan } from '../usePlan.ts';

type PlanTools = ReturnType<typeof usePlan>;

/** One topic: what is taken and why, what would turn it, and the others to take instead. */
export function TopicRanking({ plan, suggestion }: { plan: PlanTools; suggestion: Suggestion }) {
  const { topic, ranked } = suggestion;
  const choice = plan.plan.choices[topic];
  const taken = byId(ranked, choice?.candidate) ?? ranked[0];
  const name = (id: string) => candidateName(plan.catalogue, id);
  if (!taken) return null;
  const leads = taken === ranked[0];
  return (
    <details className="group border-t border-rule">
      <summary className="grid list-none grid-cols-[64px_1fr_auto] gap-x-3 py-2.5 [&::-webkit-details-marker]:hidden">
        <span className="pt-px text-[13.5px] text-soft">{TOPIC_NAMES[topic]}</span>
        <span className="min-w-0">
          <b className="font-semibold">{name(taken.id)}</b>
          {choice && (
            <span className="text-[13.5px]">
              {' '}
              – your choice{leads ? '' : `, though ${name(ranked[0]?.id ?? '')} leads`}
            </span>
          )}
          <span className="block text-[14px] text-soft">{oneLine(taken, choice?.reason)}</span>
          {OVER_WIFI.has(taken.id) && (
            <span className="block text-[14px]">
              Whoever is in the same Wi-Fi can read what goes over it, the board’s key among it, and then
              report and give orders in its place, within its guards. Each board has a key of its own; on an
              open network none is safe.
            </span>
          )}
        </span>
        <span className="text-[13.5px] underline decoration-rule underline-offset-4 group-open:hidden">
          why, and what else
        </span>
        <span className="hidden text-[13.5px] underline decoration-rule underline-offset-4 group-open:inline">
          fold
        </span>
      </summary>
      <div className="pb-4 sm:pl-[76px]">
        <Turns suggestion={suggestion} name={name} />
        <Ranking plan={plan} suggestion={suggestion} takenId={taken.id} />
      </div>
    </details>
  );
}

const OVER_WIFI: ReadonlySet<string> = new Set(['link-http', 'link-mqtt']);

const oneLine = (taken: Candidate, reason: string | undefined) =>
  reason
    ? `“${reason}”`
    : taken.speaksFor.slice(0, 2).join(' ') || 'Nothing speaks for it yet: answer the questions below.';

function Turns({ suggestion, name }: { suggestion: Suggestion; name: (id: string) => string }) {
  const { turns } = suggestion;
  if (turns.length === 0) return <p className="mb-2 text-[14px]">No single answer would change the order.</p>;
  return (
    <div className="mb-2 text-[14px]">
      <p className="label">What would change the order</p>
      <ul>
        {turns.map((turn) => (
          <li key={`${turn.question} ${turn.instead}`}>
            {turn.now === null
              ? `Not answered yet; with “${turn.instead}”`
              : `With “${turn.instead}” instead of “${turn.now}”`}
            , <b className="font-semibold">{name(turn.winner)}</b> would lead.
          </li>
        ))}
      </ul>
    </div>
  );
}

/** All candidates by rank, each with its reasons on both sides and a way to take it. */
function Ranking({
  plan,
  suggestion,
  takenId,
}: {
  plan: PlanTools;
  suggestion: Suggestion;
  takenId: string;
}) {
  const { topic, ranked } = suggestion;
  const [asking, setAsking] = useState<string | null>(null);
  const choose = (candidate: string | null, reason: string) => {
    setAsking(null);
    void plan.changePlan(`choice: ${topic}`, (held) => ({
      choices: { ...held.choices, [topic]: candidate === null ? null : { candidate, reason } },
    }));
  };
  return (
    <>
      <Scroll label="Candidates">
        <table>
          <thead>
            <tr>
              <th>Candidate</th>
              <th>Speaks for it</th>
              <th>Speaks against it</th>
              <th className="text-right">Points</th>
              <th>
                <span className="sr-only">To do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {ranked.map((one) => (
              <tr key={one.id} className={one.id === takenId ? 'bg-paper-2' : undefined}>
                <td className="font-medium">{candidateName(plan.catalogue, one.id)}</td>
                <td>{one.speaksFor.join(' ') || '–'}</td>
                <td>{one.speaksAgainst.join(' ') || '–'}</td>
                <td className="num text-right">{one.points}</td>
                <td className="text-right">
                  {one.id === takenId ? (
                    <span className="text-[13.5px] text-soft">taken</span>
                  ) : (
                    <Button
                      look="quiet"
                      className="min-h-0! py-0! text-[14px]!"
                      onClick={() => setAsking(one.id)}
                      aria-label={`Take ${candidateName(plan.catalogue, one.id)}`}
                    >
                      take
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      {plan.plan.choices[topic] && (
        <Button look="quiet" className="mt-1 text-[14px]!" onClick={() => choose(null, '')}>
          Follow the ranking again
        </Button>
      )}
      {asking !== null && (
        <ReasonForm
          name={candidateName(plan.catalogue, asking)}
          onTake={(reason) => choose(asking, reason)}
          onLeave={() => setAsking(null)}
        />
      )}
    </>
  );
}

function ReasonForm({
  name,
  onTake,
  onLeave,
}: {
  name: string;
  onTake: (reason: string) => void;
  onLeave: () => void;
}) {
  const [reason, setReason] = useState('');
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-3 border border-ink p-3"
      onSubmit={(event) => {
        event.preventDefault();
        onTake(reason.trim());
      }}
    >
      <Field label={`Why ${name}? The plan keeps your reason.`} className="min-w-[260px] flex-1">
        {(props) => (
          <input
            {...props}
            value={reason}
            maxLength={400}
            autoFocus
            onChange={(event) => setReason(event.target.value)}
          />
        )}
      </Field>
      <Button look="primary" type="submit">
        Take it
      </Button>
      <Button onClick={onLeave}>Leave it</Button>
    </form>
  );
}
