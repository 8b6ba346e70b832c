import { byId } from '@plain-trowel/core/quantity/byId';
import { clsx } from 'clsx';
import { lazy, Suspense, useMemo, useState, type ReactNode } from 'react';
import type { Finding } from '@plain-trowel/core/wiring/finding';
import type { Placed } from '@plain-trowel/core/wiring/circuit';
import { changePart, connect, removeWire, rerouteWire } from '@plain-trowel/core/wiring/edit';
import { Button } from '../../../ui/Button.tsx';
import { Check } from '../../../ui/Check.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { useKeys } from '../../../ui/keys.ts';
import type { usePlan } from '../usePlan.ts';
import { lightsOf } from './lighting.ts';
import { PartPanel } from './PartPanel.tsx';
import { pictureOf, type Shown } from './picture/pictureModel.ts';
import type { Selected } from './picture/selection.ts';
import { FocusPicture } from './picture/FocusPicture.tsx';
import { WirePanel } from './WirePanel.tsx';

const WiringPicture = lazy(() => import('./picture/WiringPicture.tsx'));

/** On a phone a picture of all parts cannot be read: one at a time can. */
const NARROW_PX = 700;

/** The picture with its own controls, and what is selected in it below. */
export function PictureView({
  plan,
  open,
  selected,
  onSelect: setSelected,
  hasFindings,
  children,
}: {
  plan: ReturnType<typeof usePlan>;
  open: Finding | null;
  selected: Selected;
  onSelect: (selected: Selected) => void;
  /** Whether a list to be looked at beside it stands below. */
  hasFindings: boolean;
  /** What stands below and is looked at beside it: the findings. */
  children: ReactNode;
}) {
  const [apart, setApart] = useState(() => window.innerWidth < NARROW_PX);
  const [shown, setShown] = useState<Shown>('all');
  const [allPins, setAllPins] = useState(false);
  const [filled, setFilled] = useState(false);
  const { circuit, wiring } = plan;
  const picture = useMemo(() => pictureOf(circuit, shown, allPins), [circuit, shown, allPins]);
  // The current's way of the chosen part goes before the finding that is open.
  const [way, setWay] = useState<ReadonlyMap<string, string> | null>(null);
  const about = way ? (selected?.id ?? null) : null;
  const lit = useMemo(
    () =>
      way
        ? { ends: new Set<string>(), wires: new Set(way.keys()), about, says: way }
        : open && lightsOf(circuit, open),
    [circuit, open, way, about],
  );
  // One at a time: the part that is chosen, or has the wire or the finding that is; else the one that was chosen last, or the first board.
  const [last, setLast] = useState<string | null>(null);
  const parts = [...circuit.parts.values()];
  const part = selected?.kind === 'part' ? (circuit.parts.get(selected.id) ?? null) : null;
  const wire = selected?.kind === 'wire' ? (byId(wiring.wires, selected.id) ?? null) : null;
  const meant = wire ? [wire.from.part, wire.to.part] : (open?.ends.map((end) => end.part) ?? []);
  const alone =
    part ??
    circuit.parts.get((meant.length === 0 || meant.includes(last ?? '') ? last : meant[0]) ?? '') ??
    parts.find(({ entry }) => entry.role === 'board') ??
    parts[0] ??
    null;
  const select = (next: Selected) => {
    setSelected(next);
    if (next?.kind === 'part') setLast(next.id);
  };
  const removeSelected = () => {
    if (!wire) return;
    setSelected(null);
    void plan.changeWiring('wire removed', (held) => removeWire(held, wire.id), 'Wire removed.');
  };
  useKeys([
    { key: 'f', does: 'Fill the screen with the picture, and back', run: () => setFilled(!filled) },
    { key: 'Delete', does: 'Remove the chosen wire', run: removeSelected },
    {
      key: 'Escape',
      does: 'Back from the full screen, and choose nothing',
      run: () => {
        setFilled(false);
        setSelected(null);
      },
    },
  ]);
  const moved = wiring.parts.some((one) => one.at !== null);
  return (
    <section
      aria-label="Wiring picture"
      className={filled ? 'fixed inset-0 z-10 overflow-y-auto bg-paper p-3' : 'mb-4'}
    >
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Choice
          legend="Parts shown"
          options={[
            { value: 'all', label: 'all parts' },
            { value: 'one', label: 'one at a time' },
          ]}
          value={apart ? 'one' : 'all'}
          onChange={(next) => setApart(next === 'one')}
        />
        {apart && alone && (
          <OnePartBar parts={parts} alone={alone} onChoose={(id) => select({ kind: 'part', id })} />
        )}
        {!apart && (
          <>
            <Choice
              legend="Wires shown"
              options={[
                { value: 'all', label: 'all wires' },
                { value: 'signals', label: 'signals' },
                { value: 'supply', label: 'supply and ground' },
              ]}
              value={shown}
              onChange={setShown}
            />
            <Check className="text-[14px]" checked={allPins} onChange={setAllPins}>
              free pins too
            </Check>
          </>
        )}
        <Button look="quiet" aria-pressed={filled} onClick={() => setFilled(!filled)}>
          {filled ? 'Back to the sheet' : 'Fill the screen'}
        </Button>
        {moved && !apart && (
          <Button
            look="quiet"
            onClick={() =>
              void plan.changeWiring('picture arranged', (held) => ({
                ...held,
                parts: held.parts.map((one) => ({ ...one, at: null })),
              }))
            }
          >
            Arrange again
          </Button>
        )}
      </div>
      {apart && alone ? (
        <FocusPicture circuit={circuit} placed={alone} lit={lit} selected={selected} onSelect={select} />
      ) : (
        <>
          <div
            className={clsx(
              'border border-ink bg-paper',
              filled
                ? 'h-[calc(100dvh-96px)]'
                : // Beside a list of findings the picture stays in sight while the list goes by.
                  hasFindings
                  ? 'sticky top-2 z-[1] h-[min(460px,50dvh)]'
                  : 'h-[max(380px,calc(100dvh-326px))]',
            )}
          >
            <Suspense fallback={<p className="p-4 text-soft">Drawing the wiring …</p>}>
              <WiringPicture
                picture={picture}
                lit={lit}
                selected={selected}
                onSelect={select}
                onConnect={(from, to) =>
                  void plan.changeWiring('wire drawn', (held) => connect(held, from, to))
                }
                onReroute={(id, from, to) =>
                  void plan.changeWiring('wire rerouted', (held) => rerouteWire(held, id, from, to))
                }
                onMove={(id, at) =>
                  void plan.changeWiring('part moved', (held) => changePart(held, id, { at }))
                }
              />
            </Suspense>
          </div>
          <p className="mt-1 text-[13px] text-soft">
            Drag from terminal to terminal to draw a wire, drag a wire’s end to reroute it; Delete removes the
            chosen one. The same can be done under Table.
          </p>
        </>
      )}
      {part && (
        <PartPanel
          key={part.part.id}
          plan={plan}
          placed={part}
          onGone={() => setSelected(null)}
          onLight={setWay}
        />
      )}
      {wire && <WirePanel plan={plan} wire={wire} onGone={() => setSelected(null)} />}
      {!filled && <div className="mt-4">{children}</div>}
    </section>
  );
}

/** Which part stands in the middle, and the way to the next. */
function OnePartBar({
  parts,
  alone,
  onChoose,
}: {
  parts: readonly Placed[];
  alone: Placed;
  onChoose: (id: string) => void;
}) {
  const at = parts.indexOf(alone);
  const go = (to: number) => {
    const next = parts[(to + parts.length) % parts.length];
    if (next) onChoose(next.part.id);
  };
  return (
    <span className="flex items-center gap-2">
      <Button onClick={() => go(at - 1)}>Part before</Button>
      <select
        aria-label="Part in the middle"
        value={alone.part.id}
        onChange={({ target }) => onChoose(target.value)}
      >
        {parts.map(({ part }) => (
          <option key={part.id} value={part.id}>
            {part.label}
          </option>
        ))}
      </select>
      <Button onClick={() => go(at + 1)}>Next part</Button>
    </span>
  );
}
