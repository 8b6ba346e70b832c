import { useState } from 'react';
import { FACTS, type FactKey, type Facts } from '@plain-trowel/core/catalogue/facts';
import { standFor } from '@plain-trowel/core/garden/edits/plan';
import { standingOf } from '@plain-trowel/core/garden/bind/standing';
import { changePart, removePart, replacePart } from '@plain-trowel/core/wiring/edit';
import { fact, type Placed } from '@plain-trowel/core/wiring/circuit';
import { partsWith } from '@plain-trowel/core/wiring/look';
import { COLOUR_TAGS, type ColourTag, type Part, type Standing } from '@plain-trowel/core/wiring/netlist';
import { Button } from '../../../ui/Button.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Check } from '../../../ui/Check.tsx';
import { Field } from '../../../ui/Field.tsx';
import type { usePlan } from '../usePlan.ts';
import { CurrentWay } from './CurrentWay.tsx';
import { SumForm } from './sums/SumForm.tsx';
import { sumOf } from './sums/sums.ts';
import { sumOfPart } from './sums/sumOfPart.ts';

type PlanTools = ReturnType<typeof usePlan>;

/** The part that was chosen: its label, entry, board, address and figures, and the sum that belongs to it. */
export function PartPanel({
  plan,
  placed,
  onGone,
  onLight,
}: {
  plan: PlanTools;
  placed: Placed;
  onGone: () => void;
  /** Lights wires in the picture; absent where there is none. */
  onLight?: (carried: ReadonlyMap<string, string> | null) => void;
}) {
  const { part, entry } = placed;
  const [summing, setSumming] = useState(false);
  const change = (what: Partial<Part>) =>
    void plan.changeWiring(`part ${part.label}`, (held) => changePart(held, part.id, what));
  const sum = sumOfPart(plan.circuit, placed);
  return (
    <div className="mt-3 border-t border-ink pt-2">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2>
          {part.label}, {entry.name}
        </h2>
        <div className="flex gap-3">
          {sum && (
            <Button onClick={() => setSumming(!summing)} aria-expanded={summing}>
              {summing ? 'Fold the sum' : `${sumOf(sum.id).name} …`}
            </Button>
          )}
          <Button
            onClick={() => {
              onGone();
              void plan.changeWiring(
                `remove ${part.label}`,
                (held) => removePart(held, part.id),
                `${part.label} was removed with its wires.`,
              );
            }}
          >
            Remove part
          </Button>
        </div>
      </div>
      <p className="text-[14px] text-soft">
        {entry.good} {entry.bad}
      </p>
      {onLight && <CurrentWay circuit={plan.circuit} placed={placed} onLight={onLight} />}
      {summing && sum && (
        <div className="my-3 border border-ink p-3">
          <SumForm
            sum={sumOf(sum.id)}
            start={sum.start}
            {...(canUse(placed, sum.id)
              ? { onUse: (facts: Facts) => change({ settings: { ...part.settings, ...facts } }) }
              : {})}
          />
        </div>
      )}
      <PartFields plan={plan} placed={placed} change={change} />
      <PartFacts placed={placed} change={change} />
    </div>
  );
}

/** A lamp keeps a name of its own; a pump is called what its line is. */
const followsName = ({ stands }: Part): boolean => stands !== null && stands.list !== 'plots';

/** A value goes into the part itself only where the part is what the sum sizes. */
const canUse = ({ entry }: Placed, sum: string): boolean =>
  (sum === 'divider' || sum === 'ntc' || sum === 'i2c' || sum === 'shunt' || sum === 'fuse') &&
  entry.role !== 'LED';

/** What of the garden the part is: by it the board's program knows which pin switches what. */
function StandsFor({ plan, placed: { part, entry } }: { plan: PlanTools; placed: Placed }) {
  const standing = standingOf(plan.garden, entry.role);
  if (!standing) return null;
  const { list, choices } = standing;
  return (
    <Field
      label={list === 'plots' ? 'It speaks for' : 'Of the garden'}
      className="col-span-2"
      hint={choices.length === 0 ? NOBODY[list] : undefined}
    >
      {(props) => (
        <select
          {...props}
          value={part.stands?.id ?? ''}
          onChange={(event) => {
            const id = event.target.value;
            void plan.change(
              `what ${part.label} is`,
              (garden) => standFor(garden, part.id, id === '' ? null : { list, id }),
              id === '' ? `${part.label} stands for nothing of the garden.` : undefined,
            );
          }}
        >
          <option value="">nothing</option>
          {choices.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

const NOBODY: Readonly<Record<Standing, string>> = {
  boards: 'The garden has no board yet.',
  probes: 'The garden has no probe yet.',
  waterLines: 'The garden has no water line yet: give a plot one in Limits, Program.',
  contacts: 'The garden has no such output yet: make one in Limits, Other outputs.',
  plots: 'The garden has no plot yet.',
};

function PartFields({
  plan,
  placed,
  change,
}: {
  plan: PlanTools;
  placed: Placed;
  change: (what: Partial<Part>) => void;
}) {
  const { part, entry } = placed;
  const alike = [...plan.catalogue.values()].filter((one) => one.role === entry.role);
  const boards = partsWith(plan.circuit, 'board');
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-3 md:grid-cols-4">
      <Field label="Label" hint={followsName(part) ? 'Follows the garden’s own name.' : undefined}>
        {(props) => (
          <input
            {...props}
            key={part.label}
            defaultValue={part.label}
            disabled={followsName(part)}
            maxLength={60}
            onBlur={(event) => {
              const typed = event.target.value.trim();
              if (typed !== '' && typed !== part.label) change({ label: typed });
            }}
          />
        )}
      </Field>
      <Field label="Colour tag">
        {(props) => (
          <select
            {...props}
            value={part.colour}
            disabled={part.stands?.list === 'probes'}
            onChange={(event) => change({ colour: event.target.value as ColourTag })}
          >
            {COLOUR_TAGS.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        )}
      </Field>
      <Field label="It is" className="col-span-2">
        {(props) => (
          <select
            {...props}
            value={entry.id}
            onChange={(event) => {
              // Read now: the change itself is made when its turn comes, and the choice may have been drawn again by then.
              const entryId = event.target.value;
              void plan.changeWiring(
                `replace ${part.label}`,
                (held) => replacePart(held, plan.catalogue, part.id, entryId),
                `${part.label} replaced.`,
              );
            }}
          >
            {alike.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <StandsFor plan={plan} placed={placed} />
      {entry.role !== 'board' && boards.length > 1 && (
        <Field label="Belongs to">
          {(props) => (
            <select
              {...props}
              value={part.boardId ?? ''}
              onChange={(event) => change({ boardId: event.target.value === '' ? null : event.target.value })}
            >
              {boards.map((board) => (
                <option key={board.part.id} value={board.part.id}>
                  {board.part.label}
                </option>
              ))}
              <option value="">all of them</option>
            </select>
          )}
        </Field>
      )}
      {entry.addresses.length > 0 && (
        <Field label="Bus address">
          {(props) => (
            <select
              {...props}
              value={part.address ?? ''}
              onChange={(event) =>
                change({ address: event.target.value === '' ? null : Number(event.target.value) })
              }
            >
              <option value="">none yet</option>
              {entry.addresses.map((address) => (
                <option key={address} value={address}>
                  {entry.addresses.length > 20 ? address : `0x${address.toString(16)} (${address})`}
                </option>
              ))}
            </select>
          )}
        </Field>
      )}
      {entry.role === 'probe' && (
        <Check
          className="col-span-2 self-end pb-2 text-[14px]"
          checked={part.perReading}
          onChange={(perReading) => change({ perReading })}
        >
          powered only while it is read
        </Check>
      )}
    </div>
  );
}

const LEFT_OUT = new Set<FactKey>(['poweredYears', 'idleYears']);

function PartFacts({ placed, change }: { placed: Placed; change: (what: Partial<Part>) => void }) {
  const { part, entry } = placed;
  const keys = (Object.keys(entry.facts) as FactKey[]).filter((key) => !LEFT_OUT.has(key));
  if (keys.length === 0) return null;
  return (
    <details className="mt-3" open={keys.some((key) => fact(placed, key) === null)}>
      <summary className="press flex items-center text-[14px] underline decoration-rule underline-offset-4">
        Figures of this part
      </summary>
      <div className="grid gap-x-6 sm:grid-cols-2">
        {keys.map((key) => (
          <div
            key={key}
            className="flex items-center justify-between gap-2 border-b border-rule py-1 text-[14px]"
          >
            <span className={part.settings[key] === undefined ? '' : 'font-semibold'}>{FACTS[key].name}</span>
            <span className="flex items-center gap-1.5 whitespace-nowrap">
              <CellNumber
                label={`${part.label}: ${FACTS[key].name}`}
                value={fact(placed, key)}
                least={FACTS[key].least}
                most={FACTS[key].most}
                decimals={FACTS[key].decimals}
                onKeep={(value) => change({ settings: { ...part.settings, [key]: value } })}
              />
              <span className="w-12 text-[13px] text-soft">{FACTS[key].unit}</span>
            </span>
          </div>
        ))}
      </div>
    </details>
  );
}
