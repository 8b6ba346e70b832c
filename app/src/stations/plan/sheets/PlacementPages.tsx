import { byId } from '@plain-trowel/core/quantity/byId';
import type { Garden, Plot, Probe } from '@plain-trowel/core/garden/document/schema';
import { InSoil } from './InSoil.tsx';
import { dealPages, MARGIN_MM, PAPERS, type PaperName } from '../../../paper/paper.ts';
import { Lines, Page, SOFT } from '../../../paper/Page.tsx';
import { LIES_WORDS } from '../../../words/placementText.ts';
import { depthText } from '../../../words/unitText.ts';

const BLOCK_MM = 54;
/** What goes wrong when a probe is put in, and is not seen afterwards. */
const DO_NOT = [
  'Do not push a probe with a line past its line; what is above it must stay dry.',
  'Do not put it where a dripper drips on it, nor in the dry corner: half way between two outlets.',
  'Do not leave air round it: make the slot with a blade, press the soil to it, water once.',
  'Do not bury a plug. Joints stay above the soil, sealed, with a drip loop below them.',
  'Do not pull at the cable: give it strain relief at the pot’s rim.',
  'Do not cover the labels; both ends keep theirs for the season.',
  'Before you dig in a bed, ask where buried services run.',
] as const;

/** Where each probe goes: its depth drawn to scale, where in the pot, between which outlets, a note for the map, and what not to do. */
export function placementPages({
  garden,
  paper,
  subtitle,
}: {
  garden: Garden;
  paper: PaperName;
  subtitle: string;
}) {
  const blocks = garden.probes.flatMap((probe) => {
    const plot = byId(garden.plots, probe.plotId);
    return plot ? [{ kind: 'probe' as const, probe, plot, heightMm: BLOCK_MM }] : [];
  });
  const rules = { kind: 'rules' as const, heightMm: 14 + DO_NOT.length * 6.2 };
  const dealt = dealPages([...blocks, rules], paper);
  return dealt.map((rows, at) => (
    <Page
      key={at}
      paper={paper}
      title="Placement sheet"
      subtitle={subtitle}
      page={at + 1}
      pages={dealt.length}
    >
      {rows.map(({ block, topMm }) =>
        block.kind === 'probe' ? (
          <Placed key={block.probe.id} probe={block.probe} plot={block.plot} top={topMm} paper={paper} />
        ) : (
          <Rules key="rules" top={topMm} paper={paper} />
        ),
      )}
    </Page>
  ));
}

function Placed({ probe, plot, top, paper }: { probe: Probe; plot: Plot; top: number; paper: PaperName }) {
  const textX = MARGIN_MM + 52;
  const { lies } = probe.placement;
  // Below the words on how it lies, which take three lines.
  const next = lies === 'upright' ? 22 : 29;
  const textWidth = PAPERS[paper].width - MARGIN_MM - textX;
  const row = (name: string, text: string, at: number) => (
    <>
      <text x={textX} y={top + at} fontSize={3.1} fill={SOFT}>
        {name}
      </text>
      <Lines
        text={text === '' ? '________________________________' : text}
        x={textX + 26}
        y={top + at}
        width={textWidth - 26}
        size={3.4}
      />
    </>
  );
  return (
    <g>
      <InSoil probe={probe} plot={plot} top={top} />
      <text x={textX} y={top + 7} fontSize={5.2} fontWeight={650}>
        {probe.label}
        <tspan fontSize={3.6} fontWeight={400} dx={3}>
          {plot.name}, {probe.kind}, {probe.colour === 'none' ? 'no tag' : `${probe.colour} tag`}
        </tspan>
      </text>
      {row(
        'Depth',
        `${depthText(probe.depthCm)}; ${lies === 'upright' ? 'the line at the soil’s surface' : `${LIES_WORDS[lies].name}. ${LIES_WORDS[lies].why}`}`,
        14,
      )}
      {row(
        plot.kind === 'bed' || plot.kind === 'lawn' ? 'Where in it' : 'Where in the pot',
        probe.placement.where,
        next,
      )}
      {row('Between outlets', probe.placement.between, next + 8)}
      {row('On the map', probe.placement.mapNote, next + 16)}
      <line
        x1={MARGIN_MM}
        x2={PAPERS[paper].width - MARGIN_MM}
        y1={top + BLOCK_MM - 1.5}
        y2={top + BLOCK_MM - 1.5}
        stroke={SOFT}
        strokeWidth={0.15}
      />
    </g>
  );
}

function Rules({ top, paper }: { top: number; paper: PaperName }) {
  return (
    <g>
      <text x={MARGIN_MM} y={top + 7} fontSize={4.4} fontWeight={650}>
        What not to do
      </text>
      {DO_NOT.map((text, at) => (
        <Lines
          key={text}
          text={text}
          x={MARGIN_MM}
          y={top + 14 + at * 6.2}
          width={PAPERS[paper].width - 2 * MARGIN_MM}
          size={3.4}
        />
      ))}
    </g>
  );
}
