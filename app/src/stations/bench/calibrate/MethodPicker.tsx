import { useState } from 'react';
import { ALL_METHODS } from '@plain-trowel/core/calibration/methods';
import type { MethodId } from '@plain-trowel/core/calibration/conditions';
import { startRun } from '@plain-trowel/core/garden/edits/calibrations';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { Button } from '../../../ui/Button.tsx';

/** The schools, side by side: how long each takes, what its percent means, and when it is the right one. */
export function MethodPicker({
  parts,
  onBegun,
  onBack,
}: {
  parts: PlotParts;
  onBegun: () => void;
  onBack?: () => void;
}) {
  const { commit } = useGarden();
  const [chosen, setChosen] = useState<MethodId>('air-water');
  const { channel } = parts;
  if (!channel) return null;
  const begin = () =>
    void commit(`begin calibrating ${parts.probe?.label ?? 'the probe'}`, (garden) => ({
      garden: startRun(garden, channel.id, chosen, {
        random: Math.random,
        nowIso: new Date().toISOString(),
      }),
    })).then((saved) => saved && onBegun());
  return (
    <section aria-label="Ways to calibrate" className="mt-3">
      <h2>Other ways to calibrate {parts.probe?.label}</h2>
      <div role="radiogroup" aria-label="Method" className="mt-1 border-b border-rule">
        {ALL_METHODS.map((method) => (
          <label
            key={method.id}
            className="press grid cursor-pointer grid-cols-[auto_1fr] gap-x-3 border-t border-rule py-1.5 has-checked:bg-paper-2 has-focus-visible:outline-2 has-focus-visible:outline-handle sm:grid-cols-[auto_210px_1fr]"
          >
            <input
              type="radio"
              name="method"
              className="mt-1 size-4.5 accent-handle"
              checked={chosen === method.id}
              onChange={() => setChosen(method.id)}
            />
            <span>
              <b className="font-semibold">{method.name}</b>
              <span className="block text-[13px] text-soft">
                {method.takes}, {percentUnit(method.percentKind({}))}
              </span>
            </span>
            <span className="col-start-2 text-[14px] text-soft sm:col-start-3">{method.when}</span>
          </label>
        ))}
      </div>
      <div className="mt-3 flex gap-3">
        <Button look="primary" onClick={begin}>
          Begin
        </Button>
        {onBack && (
          <Button look="quiet" onClick={onBack}>
            Back
          </Button>
        )}
      </div>
    </section>
  );
}
