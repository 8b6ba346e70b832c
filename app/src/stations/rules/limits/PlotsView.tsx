import { useState } from 'react';
import { Link } from 'react-router';
import { copyRules, type NotCopied } from '@plain-trowel/core/garden/edits/copyRules';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import { contradictions, doseOf } from '@plain-trowel/core/garden/bind/contradictions';
import { noiseTenthsOf } from '@plain-trowel/core/garden/bind/engineParts';
import { limitRange } from '@plain-trowel/core/garden/bind/limitRange';
import { calibrationMismatch, plotParts, type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { byId } from '@plain-trowel/core/quantity/byId';
import { formatVolume } from '@plain-trowel/core/quantity/format';
import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { decidedView } from '@plain-trowel/core/live/plotView';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Check } from '../../../ui/Check.tsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { ArmDialog } from './program/ArmDialog.tsx';
import { contradictionText } from '../../../words/contradictionText.ts';
import { labelLine } from '@plain-trowel/core/telling/plotWords';
import { PROGRAM_WORDS } from '../../../words/programText.ts';
import { LimitField } from './LimitFields.tsx';

/** Every plot in one table: limits, dose, and whether its water runs by itself; and one plot's rules for others. */
export function PlotsView({ parts }: { parts: PlotParts }) {
  const { garden } = useGarden();
  const all = garden.plots.flatMap((plot) => plotParts(garden, plot.id) ?? []);
  return (
    <>
      <Scroll label="Every plot">
        <table>
          <thead>
            <tr>
              <th>Plot</th>
              <th>Start</th>
              <th>Stop</th>
              <th>Program</th>
              <th className="text-right">Dose</th>
              <th>Waters by itself</th>
            </tr>
          </thead>
          <tbody>
            {all.map((one) => (
              <PlotRow key={one.plot.id} parts={one} />
            ))}
          </tbody>
        </table>
      </Scroll>
      {all.length > 1 && <CopyPanel key={parts.plot.id} from={parts} all={all} />}
    </>
  );
}

function PlotRow({ parts }: { parts: PlotParts }) {
  const { garden, commit } = useGarden();
  const live = useLive();
  const { stored } = useLiveTools();
  const { plot, fit, line } = parts;
  const dose = line && doseOf(line.program);
  const isVoid = calibrationMismatch(parts) !== null;
  const isAgainst = line !== null && line.automatic && contradictions(garden, line).length > 0;
  const [isAsking, setAsking] = useState(false);
  return (
    <tr>
      <td>
        <Link
          className="font-semibold underline decoration-rule underline-offset-4"
          to={sheetPath(garden.id, 'rules', 'limits', plot.id)}
        >
          {plot.name}
        </Link>
        <span className="block text-[12.5px] text-soft">
          {labelLine(decidedView(garden, parts, live, stored))}
        </span>
      </td>
      {fit && fit.percentKind !== 'switch' ? (
        (['start', 'stop'] as const).map((which) => (
          <td key={which}>
            <LimitField
              which={which}
              isBare
              scale={isShownRaw(fit.percentKind) ? 'counts' : 'percent'}
              rawUnit={percentUnit(fit.percentKind)}
              fit={fit}
              limits={plot.limits}
              noiseTenths={noiseTenthsOf(fit)}
              range={limitRange(parts, fit)}
              plotId={plot.id}
              plotName={plot.name}
            />
          </td>
        ))
      ) : (
        <td colSpan={2} className="text-soft">
          {fit ? 'its screw is its limit' : 'not calibrated yet'}
        </td>
      )}
      <td>{line ? PROGRAM_WORDS[line.program.kind].name : <span className="text-soft">lamp only</span>}</td>
      <td className="num text-right">{dose === null ? '–' : formatVolume(dose)}</td>
      <td>
        {line && line.program.kind !== 'alert-only' ? (
          <Check
            checked={line.automatic}
            onChange={(automatic) => {
              if (automatic) setAsking(true);
              else
                void commit(`switch off ${line.name}`, (before) => ({
                  garden: setWaterLine(before, line.id, { automatic }),
                }));
            }}
          >
            <span className="sr-only">{line.name} </span>
            {line.automatic ? 'on' : 'off'}
            {isVoid && <b className="text-handle">, calibration void</b>}
            {isAgainst && <b className="text-handle">, but its settings contradict</b>}
          </Check>
        ) : (
          '–'
        )}
        {line && isAsking && <ArmDialog line={line} onClose={() => setAsking(false)} />}
      </td>
    </tr>
  );
}

function CopyPanel({ from, all }: { from: PlotParts; all: readonly PlotParts[] }) {
  const { garden, commit } = useGarden();
  const others = all.filter((one) => one.plot.id !== from.plot.id);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(others.map((one) => one.plot.id)));
  const [left, setLeft] = useState<readonly NotCopied[]>([]);
  const copy = () => {
    const done = copyRules(garden, from.plot.id, [...chosen]);
    setLeft(done.left);
    const count = chosen.size - done.left.length;
    if (count === 0) {
      showToast({ tone: 'problem', text: 'Nothing was copied; the reasons stand below.' });
      return;
    }
    void commit(
      `rules of ${from.plot.name} for others`,
      (before) => ({ garden: copyRules(before, from.plot.id, [...chosen]).garden }),
      `Limits and program of ${from.plot.name} are copied to ${count} ${count === 1 ? 'plot' : 'plots'}. Water that ran by itself is switched off there until you switch it on.`,
    );
  };
  return (
    <section aria-label="Copy rules" className="mt-5 border-t border-ink pt-3">
      <h2>Copy limits and program of {from.plot.name} to</h2>
      <div className="mt-1.5 flex flex-wrap gap-x-5 gap-y-1.5">
        {others.map(({ plot }) => (
          <Check
            key={plot.id}
            checked={chosen.has(plot.id)}
            onChange={(on) =>
              setChosen((held) => {
                const next = new Set(held);
                if (on) next.add(plot.id);
                else next.delete(plot.id);
                return next;
              })
            }
          >
            {plot.name}
          </Check>
        ))}
      </div>
      <Button className="mt-2.5" disabled={chosen.size === 0} onClick={copy}>
        Copy to {chosen.size} {chosen.size === 1 ? 'plot' : 'plots'}
      </Button>
      <p className="mt-1 max-w-[66ch] text-[14px] text-soft">
        Flow, tube, tank and outlets stay each plot’s own. Choose another plot at the left to copy from it.
      </p>
      {left.length > 0 && (
        <div role="alert" className="mt-2 border-l-[3px] border-handle pl-3">
          <ul>
            {left.map((one) => (
              <li key={one.plotId}>{leftText(garden, one)}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

function leftText(garden: Garden, { plotId, why }: NotCopied): string {
  const name = byId(garden.plots, plotId)?.name ?? 'A plot';
  switch (why.kind) {
    case 'no-percent':
      return `${name}: its probe is not calibrated yet.`;
    case 'another-percent':
      return `${name}: its probe speaks of another kind of percent, in which the same number means another thing.`;
    case 'contradicts':
      return `${name}: ${contradictionText(why.contradiction)}`;
  }
}
