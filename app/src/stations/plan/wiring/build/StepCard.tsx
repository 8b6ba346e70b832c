import type { BuildStep } from '@plain-trowel/core/wiring/buildOrder';
import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import type { End } from '@plain-trowel/core/wiring/netlist';
import { ColourFlag } from '../../../../ui/ColourFlag.tsx';
import { WirePair } from './WirePair.tsx';

const KINDS = { ground: 'Ground', supply: 'Supply', signal: 'Signal' } as const;

/** One step in letters that are read with a probe in the other hand. */
export function StepCard({
  circuit,
  step,
  place,
  count,
  isDone,
}: {
  circuit: Circuit;
  step: BuildStep;
  place: number;
  count: number;
  isDone: boolean;
}) {
  return (
    <section aria-label={`Step ${place} of ${count}`} className="mt-2 border-2 border-ink bg-label p-4">
      <p className="text-[14px] text-soft">
        Step <span className="num">{place}</span> of <span className="num">{count}</span>
        {isDone && ', done'}
      </p>
      {step.kind === 'off' && (
        <>
          <p className="text-[26px] leading-tight font-semibold">Everything off</p>
          <p className="mt-1 max-w-[60ch] text-[17px]">
            Battery off or its fuse out, every plug out, the cable to the computer out, the panel covered or
            its plug apart. What hangs on the mains is left to those who are licensed for it.
          </p>
        </>
      )}
      {step.kind === 'wire' && (
        <>
          <p className="text-[17px]">
            <span className="font-semibold">{KINDS[step.of]}</span>, wire{' '}
            <span className="num">{step.number}</span>
          </p>
          <p className="text-[26px] leading-tight font-semibold">
            <EndText circuit={circuit} end={step.from} />
            <span className="text-soft"> to </span>
            <EndText circuit={circuit} end={step.to} />
          </p>
          <p className="mt-1 flex flex-wrap items-center gap-1.5 text-[17px]">
            {step.cable ? (
              <>
                <ColourFlag colour={step.cable.colour} /> in cable {step.cable.label}
                {step.cable.lengthM !== null && (
                  <>
                    , <span className="num">{step.cable.lengthM} m</span>
                  </>
                )}
              </>
            ) : (
              'in the box'
            )}
          </p>
          <WirePair circuit={circuit} from={step.from} to={step.to} kind={step.of} />
        </>
      )}
      {step.kind === 'measure' && (
        <>
          <p className="text-[17px] font-semibold">Measure, {step.stage}</p>
          <p className="text-[24px] leading-tight">
            Red tip on <b>{step.red}</b>, black tip on <b>{step.black}</b>
          </p>
          <p className="mt-1 text-[20px]">
            It should show: <b className="num">{step.expects}</b>. Stop where it does not.
          </p>
        </>
      )}
    </section>
  );
}

function EndText({ circuit, end }: { circuit: Circuit; end: End }) {
  const placed = circuit.parts.get(end.part);
  const terminal = placed?.entry.terminals.find((one) => one.id === end.terminal);
  return (
    <>
      {placed?.part.label ?? end.part} <span className="num">{terminal?.name ?? end.terminal}</span>
    </>
  );
}
