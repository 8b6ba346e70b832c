import type { Verdict } from '@plain-trowel/core/wiring/checks/all';
import { isType, type Circuit } from '@plain-trowel/core/wiring/circuit';
import { buildSteps, type WireKind } from '@plain-trowel/core/wiring/buildOrder';
import type { Cable } from '@plain-trowel/core/wiring/netlist';
import { measuresOf } from '@plain-trowel/core/wiring/measures';
import { endName, terminalName } from '../wiring/ends.ts';
import {
  dealPages,
  FOOT_MM,
  HEAD_MM,
  MARGIN_MM,
  PAPERS,
  wrapText,
  type PaperName,
} from '../../../paper/paper.ts';
import { Lines, MONO, Page, SOFT } from '../../../paper/Page.tsx';
import { HubDrawing, hubBlocks, LIT_INK, type LitOnPaper } from './HubDrawing.tsx';

const SIZE = 3.2;
/** Room for the words below the drawings. */
const LEGEND_MM = 5;
type Row = {
  /** A tick is a row with a box in front, to be ticked at the bench. */
  readonly kind: 'head' | 'row' | 'tick' | 'note';
  readonly cells: readonly string[];
  readonly heightMm: number;
  /** The wire that it is about. */
  readonly wireId?: string;
};

/** The wiring sheet: every part with its wires, then every board's pins, every wire and cable, and what the checks say to do at the bench. */
export function wiringPages({
  circuit,
  verdict,
  paper,
  subtitle,
  lit = null,
}: {
  circuit: Circuit;
  verdict: Verdict;
  paper: PaperName;
  subtitle: string;
  lit?: LitOnPaper | null;
}) {
  const { width, height } = PAPERS[paper];
  const inner = width - 2 * MARGIN_MM;
  const widths = [26, 104, inner - 130];
  const drawn = dealPages(hubBlocks(circuit, height - HEAD_MM - FOOT_MM - LEGEND_MM), paper, LEGEND_MM);
  const dealt = dealPages(rowsOf(circuit, verdict, widths), paper);
  const pages = drawn.length + dealt.length;
  return [
    ...drawn.map((blocks, at) => (
      <Page
        key={`drawn ${at}`}
        paper={paper}
        title="Wiring sheet"
        subtitle={subtitle}
        page={at + 1}
        pages={pages}
      >
        {blocks.map(({ block, topMm }, index) => (
          <HubDrawing key={index} block={block} x={MARGIN_MM} y={topMm} width={inner} lit={lit} />
        ))}
        <text x={MARGIN_MM} y={height - 15.5} fontSize={3.2} fill={SOFT}>
          Thick: supply. Dashed: ground. Thin: signals, in the colour of their tag. A dot: other wires end
          there too.
        </text>
      </Page>
    )),
    ...dealt.map((rows, at) => (
      <Page
        key={at}
        paper={paper}
        title="Wiring sheet: pins, cables, bench"
        subtitle={subtitle}
        page={drawn.length + at + 1}
        pages={pages}
      >
        {rows.map(({ block, topMm }, index) => (
          <RowDrawing key={index} row={block} top={topMm} widths={widths} lit={lit} />
        ))}
      </Page>
    )),
  ];
}

function RowDrawing({
  row,
  top,
  widths,
  lit,
}: {
  row: Row;
  top: number;
  widths: readonly number[];
  lit: LitOnPaper | null;
}) {
  if (row.kind === 'head')
    return (
      <text x={MARGIN_MM} y={top + 7} fontSize={4.2} fontWeight={650}>
        {row.cells[0]}
      </text>
    );
  if (row.kind === 'note')
    return (
      <>
        <Box top={top} />
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
  const boxMm = row.kind === 'tick' ? 5 : 0;
  const { wireId } = row;
  const press = lit && wireId !== undefined ? () => lit.onPress(wireId) : undefined;
  return (
    <g onClick={press} className={press && 'cursor-pointer'}>
      {wireId !== undefined && lit?.wires.has(wireId) && (
        <rect
          className="no-print"
          x={MARGIN_MM}
          y={top + 0.3}
          width={leftOf(widths.length) - MARGIN_MM}
          height={row.heightMm - 0.8}
          fill={LIT_INK}
        />
      )}
      {row.kind === 'tick' && <Box top={top} />}
      {row.cells.map((cell, at) => (
        <Lines
          key={at}
          text={cell}
          x={leftOf(at) + (at === 0 ? boxMm : 0)}
          y={top + 3.7}
          width={(widths[at] ?? 0) - 2 - (at === 0 ? boxMm : 0)}
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
    </g>
  );
}

const Box = ({ top }: { top: number }) => (
  <rect x={MARGIN_MM} y={top + 1.2} width={2.8} height={2.8} fill="none" stroke={SOFT} strokeWidth={0.3} />
);

/** In the order of the bench. */
const WIRE_GROUPS: readonly (readonly [WireKind, string])[] = [
  ['ground', 'Every wire, with everything off: grounds first'],
  ['supply', 'Then supplies'],
  ['signal', 'Then signals'],
];

const cableText = (cable: Cable | null): string =>
  cable === null
    ? 'in the box'
    : `cable ${cable.label}${cable.colour === 'none' ? '' : `, ${cable.colour}`}${cable.lengthM === null ? '' : `, ${cable.lengthM} m`}`;

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
        .map(
          (wire) =>
            `${terminalName(circuit.parts.get(wire.from.part), wire.from)} – ${terminalName(circuit.parts.get(wire.to.part), wire.to)}`,
        )
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
  const tick = (cells: string[]): Row => ({ ...row(cells), kind: 'tick' });
  const steps = buildSteps(circuit);
  const wiresOf = (kind: WireKind): Row[] =>
    steps.flatMap((step) =>
      step.kind === 'wire' && step.of === kind
        ? [
            {
              ...tick([
                String(step.number),
                `${endName(circuit, step.from)} to ${endName(circuit, step.to)}`,
                cableText(step.cable),
              ]),
              wireId: step.wireId,
            },
          ]
        : [],
    );
  const groups = WIRE_GROUPS.flatMap(([kind, text]) => {
    const rows = wiresOf(kind);
    return rows.length === 0 ? [] : [head(text), ...rows];
  });
  const measures = measuresOf(circuit).map((one) =>
    tick([one.stage, `${one.red} (red), ${one.black} (black)`, one.expects]),
  );
  return [
    ...pins,
    ...groups,
    ...(measures.length > 0 ? [head('With the multimeter, before you trust it'), ...measures] : []),
    ...(cables.length > 0 ? [head('Cables'), ...cables] : []),
    ...(notes.length > 0 ? [head('Before power, and at the bench'), ...notes] : []),
  ];
}
