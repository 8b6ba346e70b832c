import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import { methodOf } from '@plain-trowel/core/calibration/methods';
import { uncertaintyOf } from '@plain-trowel/core/calibration/uncertainty';
import { useCalibration as putToUse, versionsOf } from '@plain-trowel/core/garden/edits/calibrations';
import { calibratedOfVersion } from '@plain-trowel/core/garden/bind/curveOf';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Calibration } from '@plain-trowel/core/garden/document/schema';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { BoardTablePanel } from './BoardTablePanel.tsx';
import { CertificateView } from './CertificateView.tsx';
import { CompareVersions } from './CompareVersions.tsx';
import { SisterCopy } from './SisterCopy.tsx';

/** Every version of a probe's calibration: what each says, which one is used, and what can be done with the one that is chosen. */
export function VersionsView({ parts }: { parts: PlotParts }) {
  const { garden, commit } = useGarden();
  const channelId = parts.channel?.id ?? '';
  const versions = versionsOf(garden, channelId);
  const [chosenId, setChosen] = useState<string | null>(null);
  const chosen = byId(versions, chosenId ?? parts.calibration?.id) ?? versions[0];
  if (!chosen)
    return (
      <p className="text-soft">
        No version yet. The first calibration of {parts.probe?.label} will be listed here, and every later one
        beside it.
      </p>
    );
  const use = (version: Calibration) =>
    void commit(
      `use the version of ${version.madeAt.slice(0, 10)}`,
      (before) => ({ garden: putToUse(before, version.id) }),
      `${parts.probe?.label ?? 'The probe'} reads by this version now. Limits of another kind of percent keep their raw counts.`,
    );
  return (
    <>
      <Scroll label="Versions">
        <table>
          <thead>
            <tr>
              <th>Version</th>
              <th>Method</th>
              <th className="text-right">From</th>
              <th className="text-right">To</th>
              <th className="text-right">± in the middle</th>
              <th>Use</th>
            </tr>
          </thead>
          <tbody>
            {versions.map((version) => (
              <VersionRow
                key={version.id}
                version={version}
                isChosen={version === chosen}
                inUse={version.id === parts.calibration?.id}
                onChoose={() => setChosen(version.id)}
                onUse={() => use(version)}
              />
            ))}
          </tbody>
        </table>
      </Scroll>
      <CompareVersions key={`compare ${chosen.id}`} parts={parts} chosen={chosen} versions={versions} />
      <BoardTablePanel key={chosen.id} parts={parts} calibration={chosen} />
      <SisterCopy parts={parts} calibration={chosen} />
      {chosen.percentKind !== 'counts' && <CertificateView parts={parts} calibration={chosen} />}
    </>
  );
}

function VersionRow({
  version,
  isChosen,
  inUse,
  onChoose,
  onUse,
}: {
  version: Calibration;
  isChosen: boolean;
  inUse: boolean;
  onChoose: () => void;
  onUse: () => void;
}) {
  const { garden } = useGarden();
  const calibrated = calibratedOfVersion(version);
  const curve = calibrated?.curve;
  const unit = percentUnit(version.percentKind);
  const middle =
    calibrated &&
    uncertaintyOf(calibrated, {
      rawCounts: (calibrated.curve.dryCounts + calibrated.curve.wetCounts) / 2,
      noiseCounts: calibrated.curve.noiseCounts,
      readings: 12,
      stepCounts: 1,
      temperatureC: null,
    });
  const isRaw = version.percentKind === 'counts';
  const end = (counts: number, percent: number) =>
    isRaw ? '–' : `${formatCounts(Math.round(counts))} = ${formatNumber(percent, 1)}`;
  return (
    <tr className={isChosen ? 'bg-paper-2' : ''}>
      <td>
        <label className="press flex items-center gap-2">
          <input
            type="radio"
            name="version"
            className="size-4.5 accent-handle"
            checked={isChosen}
            onChange={onChoose}
          />
          <span className="num">{dayTime(Date.parse(version.madeAt), garden.timeZone)}</span>
        </label>
        {version.who && <span className="block text-[12.5px] text-soft">by {version.who}</span>}
      </td>
      <td>
        {methodOf(version.method).name}
        <span className="block text-[12.5px] text-soft">
          {unit}, {version.points.length} points
          {version.guessOf !== null && ', a guess from a sister'}
          {version.warnings.length > 0 &&
            `, ${version.warnings.length} ${version.warnings.length === 1 ? 'warning' : 'warnings'}`}
        </span>
      </td>
      <td className="num text-right">{curve ? end(curve.dryCounts, curve.dryPercent) : '–'}</td>
      <td className="num text-right">{curve ? end(curve.wetCounts, curve.wetPercent) : '–'}</td>
      <td className="num text-right">
        {middle && !isRaw ? `± ${formatNumber(middle.plusMinus, 1)} ${unit}` : '–'}
      </td>
      <td>
        {inUse ? (
          'in use'
        ) : (
          <button type="button" className="press underline underline-offset-4" onClick={onUse}>
            Use it
          </button>
        )}
      </td>
    </tr>
  );
}
