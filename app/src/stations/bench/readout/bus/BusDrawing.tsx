import { addressOf, type BusMember } from './busMembers.ts';
import type { BusSnapshot } from '../../../../links/busDesk.ts';

const STEP = 92;
const LEFT = 118;
const HEIGHT = 118;
const [A_Y, B_Y] = [30, 46];

/** The pair of wires with what hangs on it: the probe that answered last is filled, one that did not is crossed out. The terminators stand at both ends. */
export function BusDrawing({ members, state }: { members: readonly BusMember[]; state: BusSnapshot }) {
  const found = (state.found?.addresses ?? []).filter(
    (address) => !members.some((one) => one.address === address),
  );
  const all = [
    ...members.map((one) => ({ address: one.address, label: one.label })),
    ...found.map((address) => ({ address, label: null })),
  ].slice(0, 12);
  const asked = addressOf(state);
  const answered = state.last?.result.ok === true;
  const width = LEFT + Math.max(1, all.length) * STEP + 40;
  return (
    <div className="mt-3 overflow-x-auto">
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`The bus: ${all.length === 0 ? 'nobody is known on it yet' : all.map(({ address, label }) => `${label ?? 'a probe'} at address ${address}`).join(', ')}.${asked === null ? '' : ` Address ${asked} ${answered ? 'answered' : 'did not answer'} last.`}`}
        className="block"
      >
        <g className="stroke-ink" strokeWidth={1.5} fill="none">
          <rect x={8} y={18} width={78} height={40} className="fill-paper-2" />
          <path d={`M86 ${A_Y}H${width - 16}M86 ${B_Y}H${width - 16}`} />
          {/* A terminator bridges the pair at each of its two ends. */}
          {[98, width - 16].map((x) => (
            <path key={x} d={`M${x} ${A_Y}v3h-4v10h8v-10h-4m0 10v3`} className="fill-paper" />
          ))}
        </g>
        <text x={47} y={35} textAnchor="middle" className="fill-ink text-[12.5px] font-semibold">
          adapter
        </text>
        <text x={47} y={50} textAnchor="middle" className="fill-soft text-[11.5px]">
          A and B
        </text>
        {all.map(({ address, label }, at) => {
          const x = LEFT + at * STEP + 20;
          const isAsked = address === asked;
          return (
            <g key={address}>
              <path
                d={`M${x + 14} ${A_Y}V72M${x + 28} ${B_Y}V72`}
                className={isAsked && answered ? 'stroke-handle' : 'stroke-ink'}
                strokeWidth={isAsked ? 2.5 : 1.5}
              />
              <circle cx={x + 14} cy={A_Y} r={2.6} className="fill-ink" />
              <circle cx={x + 28} cy={B_Y} r={2.6} className="fill-ink" />
              <rect
                x={x}
                y={72}
                width={42}
                height={26}
                strokeWidth={1.5}
                className={isAsked && answered ? 'fill-ink stroke-ink' : 'fill-label stroke-ink'}
                strokeDasharray={label === null ? '3 3' : undefined}
              />
              {isAsked && state.last && !answered && (
                <path d={`M${x} 72l42 26M${x + 42} 72l-42 26`} className="stroke-handle" strokeWidth={2} />
              )}
              <text
                x={x + 21}
                y={89}
                textAnchor="middle"
                className={`font-mono text-[12.5px] ${isAsked && answered ? 'fill-paper' : 'fill-ink'}`}
              >
                {address}
              </text>
              <text x={x + 21} y={112} textAnchor="middle" className="fill-soft text-[12px]">
                {label ?? 'not named'}
              </text>
            </g>
          );
        })}
        {all.length === 0 && (
          <text x={LEFT + 16} y={86} className="fill-soft text-[13px]">
            Nobody is known on it yet. Look for probes.
          </text>
        )}
      </svg>
    </div>
  );
}
