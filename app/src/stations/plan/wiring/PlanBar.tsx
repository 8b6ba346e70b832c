import { MOST } from '@plain-trowel/core/quantity/bounds';
import { AddButton } from '../../../ui/AddButton.tsx';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { addPart } from '@plain-trowel/core/wiring/edit';
import { applyFix, clearPins, planPins, type Blocked } from '@plain-trowel/core/wiring/planPins';
import type { Netlist } from '@plain-trowel/core/wiring/netlist';
import type { WiringPlan } from '@plain-trowel/core/wiring/planWiring';
import { sheetPath } from '../../../frame/stations.ts';
import { Button } from '../../../ui/Button.tsx';
import { showToast } from '../../../ui/toasts.ts';
import type { usePlan } from '../usePlan.ts';
import { askWiring } from '../../../workers/wiring.ts';
import { AddPartDialog } from './AddPartDialog.tsx';
import { PlanPreview } from './PlanPreview.tsx';
import type { Checked } from './useVerdict.ts';

type PlanTools = ReturnType<typeof usePlan>;

/** What the planner does by itself: wire everything, plan the pins again; and parts to add by hand. */
export function PlanBar({
  plan,
  checked,
  blocked,
  onBlocked,
}: {
  plan: PlanTools;
  checked: Checked;
  blocked: readonly Blocked[];
  onBlocked: (blocked: readonly Blocked[]) => void;
}) {
  const [adding, setAdding] = useState(false);
  const [proposed, setProposed] = useState<WiringPlan | null>(null);
  const { wiring, catalogue, setting, ground } = plan;
  const { isWorking, ask } = useAsk(wiring);
  const empty = wiring.parts.length === 0;
  const hasOpen = checked.latest?.findings.some(
    ({ check }) => check === 'unpowered' || check === 'open-signal',
  );
  const habits = { lengthM: plan.plan.answers.cableM };
  const propose = async (without: readonly string[] = []) => {
    const done = await ask((jobs) => jobs.planWithout(wiring, ground, habits, without));
    if (!done) return;
    onBlocked(done.blocked);
    if (done.changes.length > 0) setProposed(done);
    else {
      setProposed(null);
      showToast({
        tone: 'done',
        text:
          done.unfed.length > 0
            ? `Nothing could be added. No supply in the wiring suits ${done.unfed.join(', ')}.`
            : 'Everything is wired already.',
      });
    }
  };
  const draw = (netlist: Netlist) => {
    setProposed(null);
    const wires = netlist.wires.length - wiring.wires.length;
    const parts = netlist.parts.length - wiring.parts.length;
    void plan.changeWiring(
      'wire it all',
      () => netlist,
      `${wires} ${wires === 1 ? 'wire' : 'wires'} drawn${parts > 0 ? `, ${parts} ${parts === 1 ? 'part' : 'parts'} added` : ''}.`,
    );
  };
  /** Takes a change that the planner worked out, unless the checks find harm in it. */
  const take = async (label: string, netlist: Netlist, toast: string) => {
    const foreseen = await ask((jobs) => jobs.foresee(wiring, netlist, ground));
    if (!foreseen) return;
    const [harm] = foreseen.harm;
    if (harm) showToast({ tone: 'problem', text: `Nothing was changed, for it would do harm: ${harm.says}` });
    else void plan.changeWiring(label, () => netlist, toast);
  };
  /** Adds the part that makes room, and wires it. */
  const fix = async (one: Blocked) => {
    const fixed = planPins(applyFix(wiring, catalogue, one), catalogue, setting.radioOn);
    const wired = await ask((jobs) => jobs.plan(fixed.netlist, ground, habits));
    if (!wired) return;
    setProposed(null);
    onBlocked(wired.blocked);
    await take('converter added', wired.proposal, 'Added and wired.');
  };
  const pinsAgain = async () => {
    const done = planPins(clearPins(wiring, catalogue), catalogue, setting.radioOn);
    onBlocked(done.blocked);
    await take(
      'pins planned',
      done.netlist,
      `${done.planned.length} ${done.planned.length === 1 ? 'pin' : 'pins'} planned${done.blocked.length > 0 ? ', not all of them: see below' : ''}.`,
    );
  };
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        {empty ? (
          <p className="basis-full">
            The picture of the wiring will appear here, with every check.{' '}
            <Link
              className="font-semibold underline underline-offset-4"
              to={sheetPath(plan.garden.id, 'plan', 'parts', null)}
            >
              Lay the parts out from a few answers
            </Link>
            , or add them one by one.
          </p>
        ) : (
          <>
            <Button look={hasOpen ? 'primary' : 'plain'} disabled={isWorking} onClick={() => void propose()}>
              Wire what is open
            </Button>
            <Button disabled={isWorking} onClick={() => void pinsAgain()}>
              Plan pins again
            </Button>
          </>
        )}
        <AddButton
          count={plan.wiring.parts.length}
          most={MOST.parts}
          what="parts"
          onClick={() => setAdding(true)}
        >
          Add a part
        </AddButton>
      </div>
      {blocked.map((one) => (
        <div key={one.says} role="alert" className="mb-3 border-l-2 border-handle pl-3">
          <p>{one.says}</p>
          {one.fix ? (
            <Button className="mt-2" disabled={isWorking} onClick={() => void fix(one)}>
              {one.fix.label}
            </Button>
          ) : (
            <p className="text-soft">
              No single part gives this board more of them: take a board with more, or a second board.
            </p>
          )}
        </div>
      ))}
      {proposed && (
        <PlanPreview
          // Worked out again, everything is taken again.
          key={proposed.inTheWay.join(' ')}
          plan={plan}
          proposed={proposed}
          onWithout={(parts) => void propose(parts)}
          onFix={(one) => void fix(one)}
          onDraw={draw}
          onClose={() => setProposed(null)}
        />
      )}
      {adding && (
        <AddPartDialog
          plan={plan}
          onClose={() => setAdding(false)}
          onAdd={(of) => {
            setAdding(false);
            void plan.changeWiring(
              'part added',
              (held) => addPart(held, catalogue, of).netlist,
              `${catalogue.get(of.entryId)?.name ?? 'Part'} added.`,
            );
          }}
        />
      )}
    </>
  );
}

/** Asks the worker about a wiring; null, and told, where that failed or the wiring has changed meanwhile. */
function useAsk(wiring: Netlist) {
  const [isWorking, setIsWorking] = useState(false);
  const present = useRef(wiring);
  useEffect(() => {
    present.current = wiring;
  }, [wiring]);
  const ask = async <T,>(question: Parameters<typeof askWiring<T>>[0]): Promise<T | null> => {
    setIsWorking(true);
    const answer = await askWiring(question).catch(() => null);
    setIsWorking(false);
    if (answer === null)
      showToast({
        tone: 'problem',
        text: 'This could not be worked out. Load the page again and try once more.',
      });
    else if (present.current !== wiring) {
      showToast({ tone: 'problem', text: 'The wiring has changed meanwhile. Press once more.' });
      return null;
    }
    return answer;
  };
  return { isWorking, ask };
}
