import type { PlotParts } from '@plain-trowel/core/garden/edit';
import type { Reference } from '@plain-trowel/core/garden/schema';
import { formatCounts, formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { workReference, workSpread } from '@plain-trowel/core/calibration/workReference';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { useGarden } from '../../../data/gardenContext.ts';
import { VERDICT_WORDS } from '../../../words/settlingText.ts';
import { dayTime } from '../../../words/timeText.ts';

function Row({ side, peg, inUse }: { side: 'dry' | 'wet'; peg: Reference | null; inUse: boolean }) {
  const { garden } = useGarden();
  if (!peg)
    return (
      <tr>
        <td>{side === 'dry' ? 'Dry' : 'Wet'}</td>
        <td colSpan={3} className="text-soft">
          not captured yet
        </td>
      </tr>
    );
  return (
    <tr>
      <td>
        {side === 'dry' ? 'Dry' : 'Wet'}, {peg.condition}
        <span className="block text-[12.5px] text-soft">
          {inUse ? (side === 'dry' ? '0 % span' : '100 % span') : 'not in use'}
          {peg.simulated && ', stand-in'}
          {peg.settling && peg.settling.verdict !== 'steady' && (
            <b className="block font-semibold text-handle">
              taken while {VERDICT_WORDS[peg.settling.verdict]}
            </b>
          )}
        </span>
      </td>
      <td className="text-right">
        <WorkedNumber
          id={`${side} reference`}
          worked={workReference(peg)}
          shown={formatCounts(peg.rawCounts)}
        />
      </td>
      <td className="text-right">
        <WorkedNumber
          id={`${side} spread`}
          worked={workSpread(peg)}
          shown={`± ${formatNumber(peg.spreadCounts, 1)}`}
        />
      </td>
      <td className="pl-4">
        <span className="num">{dayTime(Date.parse(peg.takenAt), garden.timeZone)}</span>
        <span className="block text-[12.5px] text-soft">
          {peg.readings} readings in {formatDuration(peg.windowS)}, {peg.supplyV} V
        </span>
      </td>
    </tr>
  );
}

/** The pegs: what was captured, how calm it was, and what it stands for. */
export function ReferenceTable({ parts }: { parts: PlotParts }) {
  const { channel, calibration } = parts;
  if (!channel) return null;
  const inUse = (side: 'dry' | 'wet') =>
    calibration !== null && JSON.stringify(calibration[side]) === JSON.stringify(channel.pegs[side]);
  return (
    <div className="overflow-x-auto">
      <table>
        <thead>
          <tr>
            <th>Reference</th>
            <th className="text-right">Raw counts</th>
            <th className="text-right">Spread, counts</th>
            <th className="pl-4">Taken</th>
          </tr>
        </thead>
        <tbody>
          <Row side="dry" peg={channel.pegs.dry} inUse={inUse('dry')} />
          <Row side="wet" peg={channel.pegs.wet} inUse={inUse('wet')} />
        </tbody>
      </table>
    </div>
  );
}
