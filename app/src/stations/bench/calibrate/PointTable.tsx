import { rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { byId } from '@plain-trowel/core/quantity/byId';
import { wholeSigma } from '@plain-trowel/core/calibration/convertPercent';
import { COVERAGE } from '@plain-trowel/core/calibration/uncertainty';
import type { Outcome } from '@plain-trowel/core/calibration/run';
import { workReference, workSpread, workTyped } from '@plain-trowel/core/calibration/workReference';
import { setPointUsed } from '@plain-trowel/core/garden/edits/calibrations';
import type { PointOf } from '@plain-trowel/core/garden/document/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { meanOf, typedCounts } from '@plain-trowel/core/calibration/runPoint';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { Check } from '../../../ui/Check.tsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import { knownText } from '../../../words/calibrationText.ts';
import { VERDICT_WORDS } from '../../../words/settlingText.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { hasStopped } from '@plain-trowel/core/settling/settlingWatch';
import { temperatureText } from '../../../words/unitText.ts';

/** Every point with its captures. A point can be left out; nothing is ever edited or thrown away silently. */
export function PointTable({
  points,
  outcome,
  channelId,
  isRun,
}: {
  points: readonly PointOf[];
  outcome: Outcome;
  channelId: string;
  /** Of a run under way: points can be left out. Of a calibration they are as they were. */
  isRun: boolean;
}) {
  const { garden, commit } = useGarden();
  const channel = byId(garden.channels, channelId);
  if (points.length === 0) return null;
  const isRaw = outcome.percentKind === 'counts';
  const leave = (point: PointOf, used: boolean) =>
    void commit(used ? 'take a point in again' : 'leave a point out', (garden) => ({
      garden: setPointUsed(garden, channelId, point.id, used),
    }));
  return (
    <Scroll label="Points of this calibration" className="mt-3">
      <table>
        <thead>
          <tr>
            <th>Point</th>
            {!isRaw && <th className="text-right">{percentUnit(outcome.percentKind)}</th>}
            <th className="text-right">
              {channel && channel.quantity !== 'moisture' ? rawUnitOf(channel) : 'Raw counts'}
            </th>
            <th className="text-right">Spread</th>
            <th className="pl-4">Taken</th>
            {isRun && <th>Counts</th>}
          </tr>
        </thead>
        <tbody>
          {points.map((point) => (
            <Row key={point.id} point={point} outcome={outcome}>
              {isRun && (
                <td>
                  <Check checked={point.used} onChange={(used) => leave(point, used)}>
                    <span className="sr-only">Use this point</span>
                  </Check>
                </td>
              )}
            </Row>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}

function Row({ point, outcome, children }: { point: PointOf; outcome: Outcome; children: React.ReactNode }) {
  const { garden } = useGarden();
  const fit = outcome.fitPoints.find((one) => one.pointId === point.id);
  const known = outcome.known.get(point.id);
  const last = point.captures.at(-1);
  const unsettled = point.captures.filter((one) => !hasStopped(one.settling?.verdict));
  if (!last) return null;
  const typed = typedCounts(point);
  const counts = point.captures.map((one) => one.rawCounts);
  return (
    <tr className={point.used ? '' : 'text-soft line-through'}>
      <td className="min-w-[118px]">
        {point.felt ?? point.condition}
        <span className="block text-[12.5px] text-soft">
          {typed !== null
            ? 'as typed'
            : point.captures.length === 1
              ? 'once'
              : `${point.captures.length} times`}
          {point.temperatureC !== null && `, ${temperatureText(point.temperatureC)}`}
          {last.simulated && ', stand-in'}
          {unsettled.length > 0 && typed === null && (
            <b className="block font-semibold text-handle">
              taken while {VERDICT_WORDS[unsettled[0]?.settling?.verdict ?? 'watching']}
            </b>
          )}
        </span>
      </td>
      {outcome.percentKind !== 'counts' && (
        <td className="num text-right">
          {fit ? (
            <>
              {formatNumber(fit.percent, 1)}
              {wholeSigma(fit) > 0 && (
                <span className="block text-[12.5px] text-soft">
                  ± {formatNumber(COVERAGE * wholeSigma(fit), 1)}
                </span>
              )}
            </>
          ) : known && !known.ok ? (
            <span className="block max-w-[22ch] text-[13px] font-medium whitespace-normal text-handle">
              {knownText(known.issue)}
            </span>
          ) : (
            '–'
          )}
        </td>
      )}
      <td className="text-right">
        {typed === null ? (
          <WorkedNumber
            id={`${point.id} reference`}
            worked={workReference({ condition: point.condition, ...last })}
            shown={formatCounts(Math.round(meanOf(point) * 10) / 10)}
          />
        ) : (
          <>
            <WorkedNumber
              id={`${point.id} reference`}
              worked={workTyped(point.condition, typed)}
              shown={formatCounts(typed)}
            />
          </>
        )}
      </td>
      <td className="text-right">
        {typed === null ? (
          <WorkedNumber
            id={`${point.id} spread`}
            worked={workSpread({ condition: point.condition, ...last })}
            shown={`± ${formatNumber(last.spreadCounts, 1)}`}
          />
        ) : (
          '–'
        )}
        {counts.length > 1 && typed === null && (
          <span className="num block text-[12.5px] text-soft">
            {formatNumber(Math.max(...counts) - Math.min(...counts))} between
          </span>
        )}
      </td>
      <td className="pl-4">
        <span className="num">{dayTime(Date.parse(last.takenAt), garden.timeZone)}</span>
        <span className="block text-[12.5px] text-soft">
          {typed === null ? `${last.readings} readings, ` : ''}
          {last.supplyV} V
          {point.typed !== null && typed === null && `, typed ${formatNumber(point.typed, 1)}`}
        </span>
      </td>
      {children}
    </tr>
  );
}
