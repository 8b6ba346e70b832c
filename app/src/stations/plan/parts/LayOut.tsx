import { useState } from 'react';
import { useNavigate } from 'react-router';
import { disagreements, type Disagreement } from '@plain-trowel/core/garden/bind/layOut';
import { layOutGarden, partsDropped, type Holds } from '@plain-trowel/core/garden/edits/layOutGarden';
import { listOf } from '@plain-trowel/core/wiring/look';
import { sheetPath } from '../../../frame/stations.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { candidateName } from '../../../words/candidateText.ts';
import type { usePlan } from '../usePlan.ts';

type PlanTools = ReturnType<typeof usePlan>;
const GARDEN: Holds = { board: 'garden', probe: 'garden' };

/** From answers to parts on the bench, wired and checked in one step; where something stands in the way of that, it is asked first. */
export function LayOut({ plan, answered }: { plan: PlanTools; answered: number }) {
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const has = plan.wiring.parts.length > 0;
  const apart = disagreements(plan.garden, plan.catalogue);
  const lay = async (holds: Holds) => {
    setAsking(false);
    const { refused } = layOutGarden(plan.garden, holds, Math.random);
    const saved = await plan.change(
      'parts laid out and wired',
      (garden) => layOutGarden(garden, holds, Math.random).garden,
      refused !== null
        ? `The parts are laid out, but not wired: ${refused}`
        : has
          ? 'The wiring was laid out again. Undo brings back the wiring as it was.'
          : 'Parts laid out, wired and checked.',
    );
    if (saved) void navigate(sheetPath(plan.garden.id, 'plan', 'wiring', null));
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Button
        look={has ? 'plain' : 'primary'}
        onClick={() => (has || apart.length > 0 ? setAsking(true) : void lay(GARDEN))}
      >
        {has ? 'Lay out and wire again' : 'Lay out and wire these'}
      </Button>
      <p className="max-w-[46ch] text-[13.5px] text-soft">
        {answered === 0
          ? 'Without answers this is only the usual start.'
          : has
            ? 'Says first what would go. Figures and places that you set stay.'
            : 'Boards, probes and pumps of this garden, and what the choices above add.'}
      </p>
      {asking && (
        <AskFirst
          plan={plan}
          apart={apart}
          onLay={(holds) => void lay(holds)}
          onClose={() => setAsking(false)}
        />
      )}
    </div>
  );
}

/** Which of the two holds where garden and plan differ, and what would go from the wiring that is there. */
function AskFirst({
  plan,
  apart,
  onLay,
  onClose,
}: {
  plan: PlanTools;
  apart: readonly Disagreement[];
  onLay: (holds: Holds) => void;
  onClose: () => void;
}) {
  const [holds, setHolds] = useState(GARDEN);
  const { wiring } = plan;
  const laid = layOutGarden(plan.garden, holds, seeded());
  const dropped = partsDropped(wiring, laid.garden.wiring);
  const added = partsDropped(laid.garden.wiring, wiring);
  const has = wiring.parts.length > 0;
  return (
    <Dialog open onClose={onClose} title="Lay out and wire" description="Nothing has changed yet.">
      <div className="flex flex-col gap-4">
        {apart.map((one) => (
          <Which
            key={`${one.topic} ${one.gardenEntry}`}
            plan={plan}
            one={one}
            value={holds[one.topic]}
            onChange={(value) => setHolds({ ...holds, [one.topic]: value })}
          />
        ))}
        {has && (
          <div>
            <p>
              {wiring.parts.length} parts and {wiring.wires.length} wires become{' '}
              {laid.garden.wiring.parts.length} parts and {laid.garden.wiring.wires.length} wires, all drawn
              from the start: wires and cables that you drew by hand go.
            </p>
            {dropped.length + added.length === 0 ? (
              <p className="mt-1">The parts stay the same.</p>
            ) : (
              <>
                <Parts title="Would go" labels={dropped} />
                <Parts title="Would come" labels={added} />
              </>
            )}
          </div>
        )}
        {laid.refused !== null && (
          <p className="font-medium text-handle">It would not be wired: {laid.refused}</p>
        )}
        <div className="flex gap-3">
          <Button look="primary" onClick={() => onLay(holds)}>
            Lay out and wire
          </Button>
          <Button onClick={onClose}>Leave it as it is</Button>
        </div>
      </div>
    </Dialog>
  );
}

const Parts = ({ title, labels }: { title: string; labels: readonly string[] }) => (
  <p className="mt-1">
    <b className="font-semibold">{title}:</b> {labels.length === 0 ? 'no part' : listOf(labels)}.
  </p>
);

const TOPIC = { board: 'Board', probe: 'Probe' } as const;

function Which({
  plan,
  one,
  value,
  onChange,
}: {
  plan: PlanTools;
  one: Disagreement;
  value: 'garden' | 'plan';
  onChange: (value: 'garden' | 'plan') => void;
}) {
  const { garden, catalogue } = plan;
  const things = one.topic === 'board' ? garden.boards : garden.probes;
  const names = things
    .filter((thing) => one.ids.includes(thing.id))
    .map((thing) => ('label' in thing ? thing.label : thing.name));
  const [first] = garden.boards.filter((board) => one.ids.includes(board.id));
  const gardenName = one.gardenEntry
    ? candidateName(catalogue, one.gardenEntry)
    : (first?.traits ?? 'something else');
  const calibrated = garden.channels.filter(
    (channel) =>
      channel.calibrationId !== null &&
      one.ids.includes(one.topic === 'board' ? channel.boardId : (channel.probeId ?? '')),
  ).length;
  return (
    <div className="border-l-2 border-ink pl-3">
      <p className="font-semibold">
        {TOPIC[one.topic]} {listOf(names)}: which holds?
      </p>
      <Choice
        legend={`${TOPIC[one.topic]} ${listOf(names)}`}
        options={[
          { value: 'garden', label: `The garden: ${gardenName}` },
          { value: 'plan', label: `The plan: ${candidateName(catalogue, one.planEntry)}` },
        ]}
        value={value}
        onChange={onChange}
      />
      {value === 'plan' && calibrated > 0 && (
        <p className="mt-1 text-[14px] font-medium text-handle">
          {calibrated === 1 ? 'One calibration was' : `${calibrated} calibrations were`} made with the other
          one: calibrate again before a pump goes by it.
        </p>
      )}
    </div>
  );
}

/** Ids of a look ahead, which nobody keeps. */
function seeded(): () => number {
  let state = 0.5;
  return () => (state = (state * 97 + 0.1234) % 1);
}
