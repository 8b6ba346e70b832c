import { curveOf } from '@plain-trowel/core/garden/bind/curveOf';
import { converterScaleOf } from '@plain-trowel/core/garden/bind/scale';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { foreseePair, keepPairs, type Pair } from '@plain-trowel/core/garden/edits/pairs';
import type { Capture, Garden } from '@plain-trowel/core/garden/document/schema';
import type { Taken } from '@plain-trowel/core/handsFree/atRest';
import type { HandsFree } from '@plain-trowel/core/handsFree/handsFree';
import { soilTemperatureNow } from '@plain-trowel/core/live/readingNow';
import { byId } from '@plain-trowel/core/quantity/byId';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { compareSideBySide } from '@plain-trowel/core/sideBySide/compare';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import type { LiveSnapshot } from '../../../links/liveSnapshot.ts';
import { Button } from '../../../ui/Button.tsx';
import { useKeys } from '../../../ui/keys.ts';
import { Scroll } from '../../../ui/Scroll.tsx';
import { findingText } from '../../../words/calibrationText.ts';
import { ODD_WORDS } from '../../../words/sideBySideText.ts';

function captureOf(garden: Garden, channelId: string, taken: Taken, simulated: boolean): Capture | null {
  const board = byId(garden.boards, byId(garden.channels, channelId)?.boardId);
  if (!board) return null;
  const { value, settling } = taken;
  return {
    rawCounts: value.rawCounts,
    noiseCounts: value.noiseCounts,
    spreadCounts: value.spreadCounts,
    readings: value.readings,
    windowS: value.windowS,
    takenAt: isoOf(value.atMs),
    supplyV: board.supplyV,
    boardId: board.id,
    simulated,
    settling: {
      verdict: settling.verdict,
      fromEndCounts: settling.end ? value.rawCounts - settling.end.counts : null,
    },
  };
}

function pairsOf(garden: Garden, state: HandsFree, live: LiveSnapshot): Pair[] {
  const simulated = live.source?.simulated ?? false;
  return state.channelIds.flatMap((channelId): Pair[] => {
    const { air, water } = state.taken[channelId] ?? {};
    const one = air && captureOf(garden, channelId, air, simulated);
    const other = water && captureOf(garden, channelId, water, simulated);
    const plotId = byId(garden.probes, byId(garden.channels, channelId)?.probeId)?.plotId ?? '';
    return one && other
      ? [
          {
            channelId,
            air: one,
            water: other,
            temperatureC: soilTemperatureNow(garden, plotId, live.present),
          },
        ]
      : [];
  });
}

/** Numbers of their own are compared as they are, up to a hundred. */
const OWN_SCALE = 100;

const contextIn = (garden: Garden, nowMs: number) => (channelId: string) => {
  const channel = byId(garden.channels, channelId);
  return {
    probeKind: byId(garden.probes, channel?.probeId)?.kind ?? null,
    fullScaleCounts: channel ? converterScaleOf(garden, channel) : null,
    nowMs,
  };
};

/** What the pass found: each probe's air, water and span, whether one is unlike the others, and taking all of it into use with one press. */
export function HandsFreeResult({ state, onDone }: { state: HandsFree; onDone: () => void }) {
  const { garden, commit } = useGarden();
  const live = useLive();
  const pairs = pairsOf(garden, state, live);
  const nowMs = Math.round(live.nowMs);
  const rows = pairs.map((pair) => ({
    pair,
    foreseen: foreseePair(garden, pair, contextIn(garden, nowMs)(pair.channelId)),
  }));
  const compared = compareSideBySide(
    pairs.map(({ channelId, air, water }) => ({
      id: channelId,
      fullScaleCounts: contextIn(garden, nowMs)(channelId).fullScaleCounts ?? OWN_SCALE,
      air: { counts: air.rawCounts, noiseCounts: air.noiseCounts },
      jar: { counts: water.rawCounts, noiseCounts: water.noiseCounts },
    })),
  );
  const good = rows.filter(
    ({ foreseen }) => foreseen && !foreseen.findings.some((one) => one.level === 'refuse'),
  ).length;
  const keep = () =>
    void commit(
      `air and water of ${pairs.length === 1 ? 'a probe' : `${pairs.length} probes`}`,
      (before) => {
        const kept = keepPairs(before, pairs, contextIn(before, nowMs), {
          random: Math.random,
          nowIso: isoOf(nowMs),
        });
        return {
          garden: kept.garden,
          events: kept.made.flatMap((one) => {
            const curve = curveOf(one);
            const probe = byId(before.probes, byId(before.channels, one.channelId)?.probeId);
            return curve
              ? [
                  {
                    atMs: nowMs,
                    plotId: probe?.plotId ?? null,
                    channelId: one.channelId,
                    simulated: live.source?.simulated ?? false,
                    kind: 'calibrated' as const,
                    calibrationId: one.id,
                    method: one.method,
                    percentKind: curve.percentKind,
                    dryCounts: curve.dryCounts,
                    wetCounts: curve.wetCounts,
                  },
                ]
              : [];
          }),
        };
      },
      `${good} ${good === 1 ? 'probe is' : 'probes are'} calibrated and tested; the sheets show percent now.`,
    ).then((saved) => saved && onDone());
  useKeys([{ key: 'f', does: 'Use these references', run: keep }]);
  return (
    <>
      <h2 className="text-[26px]! leading-tight">
        {good === rows.length
          ? `${rows.length === 1 ? 'It has' : 'All have'} air and water`
          : `${good} of ${rows.length} can be used`}
      </h2>
      <Scroll label="Air and water">
        <table className="mt-1">
          <thead>
            <tr>
              <th>Probe</th>
              <th className="text-right">Air, counts</th>
              <th className="text-right">Water, counts</th>
              <th className="text-right">Span, counts</th>
              <th className="text-right">± in the middle</th>
              <th className="pl-4">Finding</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ pair, foreseen }) => {
              const channel = byId(garden.channels, pair.channelId);
              const refused = foreseen?.findings.find((one) => one.level === 'refuse');
              const odd = byId(compared.rows, pair.channelId)?.odd ?? null;
              return (
                <tr key={pair.channelId}>
                  <td className="font-semibold">{channel ? channelName(garden, channel) : ''}</td>
                  <td className="num text-right">{formatCounts(Math.round(pair.air.rawCounts))}</td>
                  <td className="num text-right">{formatCounts(Math.round(pair.water.rawCounts))}</td>
                  <td className="num text-right">
                    {formatNumber(Math.abs(pair.air.rawCounts - pair.water.rawCounts))}
                  </td>
                  <td className="num text-right">
                    {foreseen?.plusMinus == null ? '–' : `${formatNumber(foreseen.plusMinus, 1)} % span`}
                  </td>
                  <td className="pl-4">
                    {refused ? (
                      <b className="font-semibold text-handle">{findingText(refused)}</b>
                    ) : odd ? (
                      <b className="font-semibold text-handle">{ODD_WORDS[odd]}</b>
                    ) : rows.length > 2 ? (
                      'as the others'
                    ) : (
                      'in order'
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Scroll>
      <p className="mt-1 text-[14px] text-soft">
        Taken once each; three times would show the spread, and until then 1 % of the span is assumed. 0 % is
        air and 100 % is water: a percent of its own kind, not of water in your soil.
      </p>
      <Button look="primary" className="mt-2" hint="F" disabled={good === 0} onClick={keep}>
        {rows.length === 1 ? 'Use it' : `Use ${good === rows.length ? 'all' : `these ${good}`}`}
      </Button>
    </>
  );
}
