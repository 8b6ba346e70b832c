import type { Placed } from '@plain-trowel/core/wiring/circuit';
import {
  hubsOf,
  inHalves,
  type Hub,
  type Neighbour,
  type NeighbourWire,
} from '@plain-trowel/core/wiring/neighbours';
import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import { terminalName } from '../wiring/ends.ts';
import { isSmall, valueOf } from '../wiring/picture/pictureModel.ts';
import { INK, MONO, SOFT, TAG_INKS } from '../../../paper/Page.tsx';

/** Sizes on paper, mm. Capital letters of this type are 2.1 mm high: read at arm’s length. */
const TYPE = 3.2;
const ROW = 5.4;
const HEAD = 10.5;
const GAP = 3;
const BOX = 48;
/** Space below a drawing. */
const BELOW = 7;
const STEEL = '#3d5361';

/** One drawing of the wiring sheet: a part, or as much of it as a page holds. */
export type HubBlock = {
  readonly placed: Placed;
  readonly left: readonly Neighbour[];
  readonly right: readonly Neighbour[];
  readonly heightMm: number;
};

/** What is lit on the screen; nothing of it is printed or saved. */
export type LitOnPaper = {
  readonly wires: ReadonlySet<string>;
  readonly onPress: (wireId: string) => void;
};
export const LIT_INK = '#f4cfc0';

const boxHeight = ({ wires }: Neighbour): number => HEAD + wires.length * ROW + 1;
const sideHeight = (side: readonly Neighbour[]): number =>
  side.reduce((sum, one) => sum + boxHeight(one) + GAP, 0);

/** The whole wiring as drawings of one part each, none higher than a page. */
export function hubBlocks(circuit: Circuit, mostMm: number): HubBlock[] {
  return hubsOf(circuit).flatMap((hub) => blocksOf(hub, mostMm));
}

function blocksOf({ placed, neighbours }: Hub, mostMm: number): HubBlock[] {
  const [left, right] = inHalves(neighbours, (one) => boxHeight(one) + GAP);
  const heightMm = Math.max(sideHeight(left), sideHeight(right), HEAD + ROW) + BELOW;
  const [only] = neighbours;
  if (heightMm <= mostMm || !only || (neighbours.length === 1 && only.wires.length === 1))
    return [{ placed, left, right, heightMm }];
  // In two drawings: half of the neighbours in each, of a single one half of its wires.
  const pieces: readonly (readonly Neighbour[])[] =
    neighbours.length > 1
      ? [left, right]
      : inHalves(only.wires, () => 1).map((wires) => [{ placed: only.placed, wires }]);
  return pieces.flatMap((piece) => blocksOf({ placed, neighbours: piece }, mostMm));
}

const cut = (text: string, letters: number) =>
  text.length <= letters ? text : `${text.slice(0, Math.max(1, letters - 1))}…`;

/** A part in the middle, its wires straight to the parts at their other ends, each with its number and colour. */
export function HubDrawing({
  block: { placed, left, right, heightMm },
  x,
  y,
  width,
  lit,
}: {
  block: HubBlock;
  x: number;
  y: number;
  width: number;
  lit: LitOnPaper | null;
}) {
  const middle = (width - BOX) / 2;
  const height = heightMm - BELOW - GAP;
  return (
    <g transform={`translate(${x} ${y})`}>
      <PartBox placed={placed} x={middle} y={0} height={height} isOwn />
      <SideDrawing placed={placed} side={left} boxX={0} from={BOX} to={middle} isLeft lit={lit} />
      <SideDrawing
        placed={placed}
        side={right}
        boxX={width - BOX}
        from={middle + BOX}
        to={width - BOX}
        isLeft={false}
        lit={lit}
      />
    </g>
  );
}

function SideDrawing({
  placed,
  side,
  boxX,
  from,
  to,
  isLeft,
  lit,
}: {
  placed: Placed;
  side: readonly Neighbour[];
  boxX: number;
  from: number;
  to: number;
  isLeft: boolean;
  lit: LitOnPaper | null;
}) {
  return side.map((neighbour, at) => {
    const top = sideHeight(side.slice(0, at));
    return (
      <g key={neighbour.placed.part.id}>
        <PartBox placed={neighbour.placed} x={boxX} y={top} height={boxHeight(neighbour)} />
        {neighbour.wires.map((wire, row) => (
          <WireLine
            key={wire.id}
            wire={wire}
            own={placed}
            other={neighbour.placed}
            y={top + HEAD + row * ROW + ROW / 2}
            from={from}
            to={to}
            isLeft={isLeft}
            lit={lit}
          />
        ))}
      </g>
    );
  });
}

function PartBox({
  placed,
  x,
  y,
  height,
  isOwn = false,
}: {
  placed: Placed;
  x: number;
  y: number;
  height: number;
  isOwn?: boolean;
}) {
  const { part, entry } = placed;
  const value = isSmall(entry.role) ? valueOf(placed) : '';
  const hasTag = part.colour !== 'none';
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={BOX}
        height={height}
        fill="#ffffff"
        stroke={INK}
        strokeWidth={isOwn ? 0.6 : 0.3}
      />
      {isOwn && <rect x={x} y={y} width={BOX} height={HEAD - 0.6} fill={INK} />}
      {hasTag && (
        <rect
          x={x + 2}
          y={y + 1.6}
          width={2.4}
          height={3}
          fill={TAG_INKS[part.colour]}
          stroke={isOwn ? '#ffffff' : INK}
          strokeWidth={0.25}
        />
      )}
      <text
        x={x + (hasTag ? 5.6 : 2)}
        y={y + 4.6}
        fontSize={3.8}
        fontWeight={650}
        fill={isOwn ? '#ffffff' : INK}
      >
        {cut(part.label, hasTag ? 20 : 23)}
      </text>
      <text x={x + 2} y={y + 8.6} fontSize={TYPE} fill={isOwn ? '#ffffff' : SOFT}>
        {cut(value === '' ? entry.name : `${entry.name}, ${value}`, 28)}
      </text>
    </g>
  );
}

function WireLine({
  wire,
  own,
  other,
  y,
  from,
  to,
  isLeft,
  lit,
}: {
  wire: NeighbourWire;
  own: Placed;
  other: Placed;
  y: number;
  from: number;
  to: number;
  isLeft: boolean;
  lit: LitOnPaper | null;
}) {
  const { cable, kind, isJoin } = wire;
  const [ownEdge, otherEdge] = isLeft ? [to, from] : [from, to];
  const colour = cable && cable.colour !== 'none' ? cable.colour : null;
  const isNamed = [own, other].some(({ part }) => part.label === cable?.label);
  const text = [String(wire.number), cable && !isNamed ? cable.label : '', colour ?? '']
    .filter((one) => one !== '')
    .join(' ');
  const room = to - from - 2;
  const told = cut(text, Math.floor(room / (TYPE * 0.5)));
  const textWidth = told.length * TYPE * 0.5 + 1.6;
  const isColoured = kind === 'signal' && colour !== null && colour !== 'white';
  const names = isLeft
    ? [terminalName(other, wire.other), terminalName(own, wire.own)]
    : [terminalName(own, wire.own), terminalName(other, wire.other)];
  const letters = (isOwn: boolean) => Math.floor((isOwn ? BOX / 2 - 2.6 : BOX - 4.6) / (TYPE * 0.6));
  return (
    <g onClick={() => lit?.onPress(wire.id)} className={lit ? 'cursor-pointer' : undefined}>
      {lit?.wires.has(wire.id) && (
        <rect
          className="no-print"
          x={from - BOX / 2}
          y={y - ROW / 2 + 0.3}
          width={to - from + BOX}
          height={ROW - 0.6}
          fill={LIT_INK}
        />
      )}
      <line
        x1={from}
        x2={to}
        y1={y}
        y2={y}
        stroke={isColoured ? TAG_INKS[colour] : kind === 'supply' ? STEEL : INK}
        strokeWidth={kind === 'supply' ? 0.9 : isColoured ? 0.7 : 0.4}
        {...(kind === 'ground' ? { strokeDasharray: '1.6 1' } : {})}
      />
      {isJoin.own && <circle cx={ownEdge} cy={y} r={0.9} fill={INK} />}
      {isJoin.other && <circle cx={otherEdge} cy={y} r={0.9} fill={INK} />}
      <rect x={(from + to - textWidth) / 2} y={y - 2} width={textWidth} height={4} fill="#ffffff" />
      <text x={(from + to) / 2} y={y + 1.1} fontSize={TYPE} textAnchor="middle">
        {told}
      </text>
      <text x={from - 2.2} y={y + 1.1} fontSize={TYPE} fontFamily={MONO} textAnchor="end">
        {cut(names[0] ?? '', letters(!isLeft))}
      </text>
      <text x={to + 2.2} y={y + 1.1} fontSize={TYPE} fontFamily={MONO}>
        {cut(names[1] ?? '', letters(isLeft))}
      </text>
    </g>
  );
}
