import { byId } from '@plain-trowel/core/quantity/byId';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import type { SideBySide } from '@plain-trowel/core/sideBySide/compare';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { ColourFlag } from '../../../../ui/ColourFlag.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { ODD_WORDS } from '../../../../words/sideBySideText.ts';
import { VERDICT_WORDS } from '../../../../words/settlingText.ts';
import type { Member } from './members.ts';

const signed = (value: number | null) =>
  value === null ? '–' : `${value > 0 ? '+' : ''}${formatNumber(value)}`;

/** Offsets from the middle of all, and spans; the odd one in words. */
export function SideBySideTable({ members, compared }: { members: readonly Member[]; compared: SideBySide }) {
  const { garden } = useGarden();
  const live = useLive();
  return (
    <Scroll label="Probes side by side">
      <table className="mt-1">
        <thead>
          <tr>
            <th>Probe</th>
            <th className="text-right">Now, counts</th>
            <th className="text-right">Air, counts</th>
            <th className="text-right">from middle</th>
            <th className="text-right">Jar, counts</th>
            <th className="text-right">from middle</th>
            <th className="text-right">Span, counts</th>
            <th className="text-right">beside middle</th>
            <th className="pl-4">Finding</th>
          </tr>
        </thead>
        <tbody>
          {members.map(({ probe, channel }) => {
            const row = byId(compared.rows, probe.id);
            const present = live.present.get(channel.id);
            const verdict = live.settling.get(channel.id)?.verdict;
            const bits = byId(garden.boards, channel.boardId)?.adcBits;
            return (
              <tr key={probe.id}>
                <td>
                  <span className="flex items-center gap-2">
                    <ColourFlag colour={probe.colour} />
                    <span>
                      <b className="font-semibold">{probe.label}</b>
                      <span className="block text-[12.5px] text-soft">{bits}-bit</span>
                    </span>
                  </span>
                </td>
                <td className="num text-right">
                  {present ? formatCounts(present.rawCounts) : '–'}
                  <span className="block text-[12.5px] text-soft">
                    {verdict ? VERDICT_WORDS[verdict] : ''}
                  </span>
                </td>
                <td className="num text-right">
                  {probe.firstTest.air ? formatCounts(probe.firstTest.air.rawCounts) : '–'}
                </td>
                <td className="num text-right">{signed(row?.airOffset ?? null)}</td>
                <td className="num text-right">
                  {probe.firstTest.water ? formatCounts(probe.firstTest.water.rawCounts) : '–'}
                </td>
                <td className="num text-right">{signed(row?.jarOffset ?? null)}</td>
                <td className="num text-right">{signed(row?.span ?? null)}</td>
                <td className="num text-right">
                  {row?.spanRatio == null ? '–' : `× ${formatNumber(row.spanRatio, 2)}`}
                </td>
                <td className="pl-4">
                  {row?.odd ? (
                    <b className="font-semibold text-handle">{ODD_WORDS[row.odd]}</b>
                  ) : (
                    <span className="text-soft">{row?.span == null ? 'not taken yet' : 'as the others'}</span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Scroll>
  );
}
