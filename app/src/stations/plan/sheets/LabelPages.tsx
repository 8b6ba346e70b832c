import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import type { Cable } from '@plain-trowel/core/wiring/netlist';
import { labelEnds, type LabelEnds } from './labelEnds.ts';
import { dealPages, MARGIN_MM, PAPERS, type PaperName } from '../../../paper/paper.ts';
import { INK, Lines, linesHeight, Page, SOFT, TAG_INKS } from '../../../paper/Page.tsx';

const LABEL_MM = 23;
const SIZE = 2.8;

/** Labels for both ends of every cable, to be cut out and folded round it. */
export function labelPages({
  circuit,
  paper,
  subtitle,
}: {
  circuit: Circuit;
  paper: PaperName;
  subtitle: string;
}) {
  const blocks = circuit.netlist.cables.map((cable) => ({
    cable,
    ends: labelEnds(circuit, cable),
    heightMm: LABEL_MM + 2,
  }));
  const dealt = dealPages(blocks, paper);
  return dealt.map((rows, at) => (
    <Page
      key={at}
      paper={paper}
      title="Cable labels"
      subtitle={`${subtitle} Cut out, fold round the cable, tape over: one at each end.`}
      page={at + 1}
      pages={dealt.length}
    >
      {rows.flatMap(({ block, topMm }) =>
        block.ends.map((ends, side) => (
          <Label
            key={`${block.cable.id} ${side}`}
            cable={block.cable}
            ends={ends}
            side={side}
            top={topMm}
            paper={paper}
          />
        )),
      )}
    </Page>
  ));
}

function Label({
  cable,
  ends,
  side,
  top,
  paper,
}: {
  cable: Cable;
  ends: LabelEnds;
  side: number;
  top: number;
  paper: PaperName;
}) {
  const width = (PAPERS[paper].width - 2 * MARGIN_MM - 4) / 2;
  const left = MARGIN_MM + side * (width + 4);
  const here = `here: ${ends.here}`;
  return (
    <g>
      <rect
        x={left}
        y={top}
        width={width}
        height={LABEL_MM}
        fill="none"
        stroke={SOFT}
        strokeWidth={0.2}
        strokeDasharray="1.5 1"
      />
      <rect
        x={left + 2}
        y={top + 3}
        width={7}
        height={LABEL_MM - 6}
        fill={TAG_INKS[cable.colour]}
        stroke={INK}
        strokeWidth={0.3}
      />
      <text x={left + 12} y={top + 8} fontSize={6} fontWeight={650}>
        {cable.label}
      </text>
      <text x={left + width - 2} y={top + 8} fontSize={3.2} textAnchor="end" fill={SOFT}>
        {cable.colour === 'none' ? 'no tag' : cable.colour}
        {cable.lengthM === null ? '' : `, ${cable.lengthM} m`}
      </text>
      <Lines text={here} x={left + 12} y={top + 12.5} width={width - 14} size={SIZE} fontWeight={600} />
      <Lines
        text={`other end: ${ends.there}`}
        x={left + 12}
        y={top + 12.8 + linesHeight(here, width - 14, SIZE)}
        width={width - 14}
        size={SIZE}
        fill={SOFT}
      />
    </g>
  );
}
