import type { Verdict } from '@plain-trowel/core/wiring/checks/all';
import { isType, type Circuit } from '@plain-trowel/core/wiring/circuit';
import type { End } from '@plain-trowel/core/wiring/netlist';
import { measuresOf } from '@plain-trowel/core/wiring/measures';
import { endName } from '../wiring/ends.ts';
import type { Layout } from '../wiring/picture/layOut.ts';
import type { Picture } from '../wiring/picture/pictureModel.ts';
import { dealPages, MARGIN_MM, PAPERS, wrapText, type PaperName } from '../../../paper/paper.ts';
import { Lines, MONO, Page, SOFT } from '../../../paper/Page.tsx';
import { PictureDrawing } from './PictureDrawing.tsx';

const SIZE = 3.2;
type Row = {
  readonly kind: 'head' | 'row' | 'note';
  readonly cells: readonly string[];
  readonly heightMm: number;
};

/** The wiring sheet: the picture, then every board's pins, every cable, and what the checks say to do at the bench. */
export function wiringPages({
  circuit,
  verdict,
  picture,
  layout,
  paper,
  subtitle,
}: {
  circuit: Circuit;
  verdict: Verdict;
  picture: Picture;
  layout: Layout;
  paper: PaperName;
  subtitle: string;
}) {
  const { width, height } = PAPERS[paper];
  const widths = [26, 104, width - 2 * MARGIN_MM - 130];
  const dealt = dealPages(rowsOf(circuit, verdict, widths), paper);
  const pages = dealt.length + 1;
  return [
    <Page key={0} paper={paper} title="Wiring sheet" subtitle={subtitle} page={1} pages={pages}>
      {/* Lying on its side: a wiring is wider than high, and its letters must be read at the bench. */}
      <g transform={`translate(${width - MARGIN_MM} 28) rotate(90)`}>
        <PictureDrawing
          picture={picture}
          layout={layout}
          x={0}
          y={0}
          width={height - 54}
          height={width - 2 * MARGIN_MM}
        />
      </g>
      <text x={MARGIN_MM} y={height - 18} fontSize={3.2} fill={SOFT}>
        Thick: supply. Dashed: ground. Thin: signals, in the colour of their tag. Check each wire off with a
        meter before power.
      </text>
    </Page>,
    ...dealt.map((rows, at) => (
      <Page
        key={at + 1}
        paper={paper}
        title="Wiring sheet: pins, cables, bench"
        subtitle={subtitle}
        page={at + 2}
        pages={pages}
      >
        {rows.map(({ block, topMm }, index) => (
          <RowDrawing key={index} row={block} top={topMm} widths={widths} />
        ))}
      </Page>
    )),
  ];
}

function RowDrawing({ row, top, widths }: { row: Row; top: number; widths: readonly number[] }) {
  if (row.kind === 'head')
    return (
      <text x={MARGIN_MM} y={top + 7} fontSize={4.2} fontWeight={650}>
        {row.cells[0]}
      </text>
    );
  if (row.kind === 'note')
    return (
      <>
        <rect
          x={MARGIN_MM}
          y={top + 1.2}
          width={2.8}
          height={2.8}
          fill="none"
          stroke={SOFT}
          strokeWidth={0.3}
        />
        <Lines
          text={row.cells[0] ?? ''}
          x={MARGIN_MM + 5}
          y={top + 3.7}
          width={widths.reduce((sum, one) => sum + one, 0) - 5}
          size={SIZE}
        />
      </>
    );
  const leftOf = (at: number) => widths.slice(0, at).reduce((sum, one) => sum + one, MARGIN_MM);
  const bottom = top + row.heightMm - 0.3;
  return (
    <>
      {row.cells.map((cell, at) => (
        <Lines
          key={at}
          text={cell}
          x={leftOf(at)}
          y={top + 3.7}
          width={(widths[at] ?? 0) - 2}
          size={SIZE}
          {...(at === 0 ? { fontFamily: MONO } : {})}
        />
      ))}
      <line
        x1={MARGIN_MM}
        x2={leftOf(widths.length)}
        y1={bottom}
        y2={bottom}
        stroke={SOFT}
        strokeWidth={0.15}
      />
    </>
  );
}

const terminalName = (circuit: Circuit, end: End): string =>
  circuit.parts.get(end.part)?.entry.terminals.find((one) => one.id === end.terminal)?.name ?? end.terminal;

function rowsOf(circuit: Circuit, verdict: Verdict, widths: readonly number[]): Row[] {
  const full = widths.reduce((sum, one) => sum + one, 0);
  const row = (cells: string[]): Row => ({
    kind: 'row',
    cells,
    heightMm:
      Math.max(...cells.map((cell, at) => wrapText(cell, (widths[at] ?? 1) - 2, SIZE).length), 1) *
        SIZE *
        1.3 +
      1.6,
  });
  const head = (text: string): Row => ({ kind: 'head', cells: [text], heightMm: 10 });
  const boards = [...circuit.parts.values()].filter((placed) => placed.entry.role === 'board');
  const pins = boards.flatMap((board) => [
    head(`${board.part.label}, ${board.entry.name}`),
    ...board.spots.flatMap((spot) => {
      const on = circuit.netOf(spot.end).spots.filter((one) => one.placed !== board);
      const name = isType(spot, 'pin') || isType(spot, 'supply out') || isType(spot, 'supply in');
      return on.length === 0 || !name
        ? []
        : [
            row([
              spot.terminal.name,
              on.map((one) => `${one.placed.part.label} ${one.terminal.name}`).join(', '),
              isType(spot, 'pin') ? (spot.terminal.strap ?? '') : '',
            ]),
          ];
    }),
  ]);
  const cables = circuit.netlist.cables.map((cable) =>
    row([
      cable.label,
      `${cable.colour === 'none' ? 'no tag' : `${cable.colour} tag`}, ${cable.lengthM === null ? 'length not measured' : `${cable.lengthM} m`}, ${cable.areaMm2 === null ? 'cross-section not known' : `${cable.areaMm2} mm²`}`,
      circuit.netlist.wires
        .filter((wire) => wire.cableId === cable.id)
        .map((wire) => `${terminalName(circuit, wire.from)} – ${terminalName(circuit, wire.to)}`)
        .join(', '),
    ]),
  );
  const notes = verdict.findings.map((finding): Row => {
    const text =
      finding.severity === 'note'
        ? finding.says
        : `${finding.severity === 'unknown' ? 'Cannot tell' : finding.severity}: ${finding.says}`;
    return {
      kind: 'note',
      cells: [text],
      heightMm: wrapText(text, full - 5, SIZE).length * SIZE * 1.3 + 1.6,
    };
  });
  const wires = circuit.netlist.wires.map((wire, at) => {
    const cable = wire.cableId === null ? undefined : circuit.cables.get(wire.cableId);
    return row([
      String(at + 1),
      `${endName(circuit, wire.from)} – ${endName(circuit, wire.to)}`,
      cable ? `cable ${cable.label}` : 'in the box',
    ]);
  });
  const measures = measuresOf(circuit).map((one) =>
    row([one.stage, `${one.red} (red), ${one.black} (black)`, one.expects]),
  );
  return [
    ...pins,
    ...(wires.length > 0 ? [head('Every wire'), ...wires] : []),
    ...(measures.length > 0 ? [head('With the multimeter, before you trust it'), ...measures] : []),
    ...(cables.length > 0 ? [head('Cables'), ...cables] : []),
    ...(notes.length > 0 ? [head('Before power, and at the bench'), ...notes] : []),
  ];
}
