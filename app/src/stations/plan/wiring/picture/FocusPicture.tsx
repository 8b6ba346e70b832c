import { clsx } from 'clsx';
import type { Circuit, Placed } from '@plain-trowel/core/wiring/circuit';
import {
  inHalves,
  neighboursOf,
  type Neighbour,
  type NeighbourWire,
} from '@plain-trowel/core/wiring/neighbours';
import { endKey } from '@plain-trowel/core/wiring/netlist';
import { ColourFlag } from '../../../../ui/ColourFlag.tsx';
import { useElementWidth } from '../../../../ui/useElementWidth.ts';
import { endName, terminalName } from '../ends.ts';
import { isSmall, valueOf } from './pictureModel.ts';
import type { Lit, Selected } from './selection.ts';

/** Sizes in px: letters of 13 and more on every screen, whatever the part. */
const ROW = 26;
const HEAD = 46;
const GAP = 14;
/** A wire is drawn so long at most. */
const MOST_WIRE = 260;
/** Narrower than this the neighbours stand on one side. */
const TWO_SIDED = 680;

type Row = { readonly neighbour: Neighbour; readonly wire: NeighbourWire; readonly y: number };
type Box = { readonly neighbour: Neighbour; readonly y: number; readonly height: number };

/** Where the neighbours of one side and their wires stand. */
function stack(neighbours: readonly Neighbour[]) {
  const boxes: Box[] = [];
  const rows: Row[] = [];
  let y = 0;
  for (const neighbour of neighbours) {
    const height = heightOf(neighbour);
    boxes.push({ neighbour, y, height });
    neighbour.wires.forEach((wire, at) => rows.push({ neighbour, wire, y: y + HEAD + at * ROW }));
    y += height + GAP;
  }
  return { boxes, rows, height: Math.max(0, y - GAP) };
}

const heightOf = ({ wires }: Neighbour): number => HEAD + wires.length * ROW + 4;

/** One part in the middle with every wire that ends at it, straight to the parts at the other ends: what one wires from, in letters that are read at arm’s length. */
export function FocusPicture({
  circuit,
  placed,
  lit,
  selected,
  onSelect,
}: {
  circuit: Circuit;
  placed: Placed;
  lit: Lit | null;
  selected: Selected;
  onSelect: (selected: Selected) => void;
}) {
  const [frame, width] = useElementWidth<HTMLDivElement>(900);
  const neighbours = neighboursOf(circuit, placed.part.id);
  const isTwoSided = width >= TWO_SIDED && neighbours.length > 1;
  const [leftOnes, rightOnes] = isTwoSided
    ? inHalves(neighbours, (one) => heightOf(one) + GAP)
    : [[], neighbours];
  const [left, right] = [stack(leftOnes), stack(rightOnes)];
  const box = isTwoSided ? Math.min(230, width * 0.23) : Math.min(230, width * 0.36);
  const own = isTwoSided ? box : Math.min(230, width * 0.3);
  const ownX = isTwoSided ? (width - own) / 2 : 0;
  // A single neighbour stands near, not at the other edge of a wide sheet.
  const rightX = Math.min(width - box, ownX + own + MOST_WIRE);
  const height = Math.max(left.height, right.height, HEAD + ROW);
  const sides = [
    { of: left, boxX: 0, from: box, to: ownX, isLeft: true },
    { of: right, boxX: rightX, from: ownX + own, to: rightX, isLeft: false },
  ];
  return (
    <div ref={frame} className="relative" style={{ height }}>
      <div className="absolute border-2 border-ink bg-label" style={{ left: ownX, width: own, height }}>
        <Head placed={placed} isOwn />
      </div>
      {sides.map(({ of, boxX, from, to, isLeft }) => (
        <div key={String(isLeft)}>
          {of.boxes.map(({ neighbour, y, height: boxHeight }) => (
            <button
              key={neighbour.placed.part.id}
              type="button"
              aria-label={`Look at ${neighbour.placed.part.label}`}
              onClick={() => onSelect({ kind: 'part', id: neighbour.placed.part.id })}
              className="press absolute min-h-0! border border-ink bg-label text-left hover:bg-paper-2"
              style={{ left: boxX, top: y, width: box, height: boxHeight }}
            >
              <span className="absolute inset-x-0 top-0">
                <Head placed={neighbour.placed} />
              </span>
            </button>
          ))}
          {of.rows.map(({ neighbour, wire, y }) => (
            <WireRow
              key={wire.id}
              wire={wire}
              name={`Wire ${wire.number}: ${endName(circuit, wire.own)} to ${endName(circuit, wire.other)}`}
              ownName={terminalName(placed, wire.own)}
              isNamed={[placed, neighbour.placed].some(({ part }) => part.label === wire.cable?.label)}
              otherName={terminalName(neighbour.placed, wire.other)}
              isLit={
                (selected?.kind === 'wire' && selected.id === wire.id) || lit?.wires.has(wire.id) === true
              }
              says={lit?.says.get(wire.id) ?? null}
              isMeant={{
                own: lit?.ends.has(endKey(wire.own)) === true,
                other: lit?.ends.has(endKey(wire.other)) === true,
              }}
              y={y}
              from={from}
              to={to}
              isLeft={isLeft}
              ownRoom={isTwoSided ? own / 2 - 14 : own - 16}
              otherRoom={box - 16}
              onPress={() => onSelect({ kind: 'wire', id: wire.id })}
            />
          ))}
        </div>
      ))}
      {neighbours.length === 0 && (
        <p className="absolute text-soft" style={{ left: ownX + own + 16, top: HEAD / 2 }}>
          No wire ends at it.
        </p>
      )}
    </div>
  );
}

function Head({ placed, isOwn = false }: { placed: Placed; isOwn?: boolean }) {
  const { part, entry } = placed;
  const value = valueOf(placed);
  return (
    <span
      className={clsx(
        'flex flex-col justify-center border-b px-2.5 leading-tight',
        isOwn ? 'border-ink bg-ink text-paper' : 'border-rule',
      )}
      style={{ height: HEAD - 4 }}
    >
      <span className="flex items-center gap-1.5 text-[15px] font-semibold">
        {part.colour !== 'none' && <ColourFlag colour={part.colour} />}
        <span className="truncate">{part.label}</span>
      </span>
      <span className={clsx('truncate text-[12.5px]', isOwn ? 'text-paper/85' : 'text-soft')}>
        {entry.name}
        {isSmall(entry.role) && value !== '' ? `, ${value}` : ''}
      </span>
    </span>
  );
}

const LINES = {
  supply: 'border-t-[4px] border-steel',
  ground: 'border-t-2 border-dashed border-soft',
  signal: 'border-t-2 border-ink',
} as const;

/** One wire from its terminal to the other: its number, and the colour and cable that it runs in. */
function WireRow({
  wire,
  name,
  ownName,
  otherName,
  isNamed,
  isLit,
  says,
  isMeant,
  y,
  from,
  to,
  isLeft,
  ownRoom,
  otherRoom,
  onPress,
}: {
  wire: NeighbourWire;
  /** In words, for those who cannot see it. */
  name: string;
  ownName: string;
  otherName: string;
  /** One of the two parts is called as the cable is: that need not be said again. */
  isNamed: boolean;
  isLit: boolean;
  /** What it carries. */
  says: string | null;
  /** Terminals that a finding means. */
  isMeant: { readonly own: boolean; readonly other: boolean };
  y: number;
  from: number;
  to: number;
  isLeft: boolean;
  /** Room for the names of the two terminals, px. */
  ownRoom: number;
  otherRoom: number;
  onPress: () => void;
}) {
  const { cable, isJoin } = wire;
  const [ownEdge, otherEdge] = isLeft ? [to, from] : [from, to];
  const colour = cable && cable.colour !== 'none' ? cable.colour : null;
  const tag = colour !== null && wire.kind === 'signal' && colour !== 'white' && !isLit;
  const label = [cable && !isNamed ? cable.label : '', colour ?? ''].filter((one) => one !== '').join(' ');
  const [leftName, rightName] = isLeft ? [otherName, ownName] : [ownName, otherName];
  const [leftMeant, rightMeant] = isLeft ? [isMeant.other, isMeant.own] : [isMeant.own, isMeant.other];
  const text = (isMeantHere: boolean) =>
    clsx(
      'num pointer-events-none absolute truncate text-[14px]',
      isMeantHere ? 'font-semibold text-handle' : 'text-ink',
    );
  const middleY = y + ROW / 2;
  return (
    <>
      <button
        type="button"
        aria-label={`${name}${cable ? `, cable ${cable.label}${colour === null ? '' : `, ${colour}`}` : ''}`}
        onClick={onPress}
        className="press absolute min-h-0! hover:bg-paper-2"
        style={{ left: from, width: Math.max(0, to - from), top: y, height: ROW }}
      >
        <span
          className={clsx(
            'absolute inset-x-0 top-1/2 -translate-y-1/2',
            LINES[wire.kind],
            isLit && 'border-solid! border-handle! border-t-[5px]!',
          )}
          style={tag ? { borderColor: `var(--tag-${colour})`, borderTopWidth: 3 } : undefined}
        />
        <span className="absolute inset-y-0 left-1/2 flex max-w-[86%] -translate-x-1/2 items-center">
          <span className={clsx('truncate bg-paper px-1 text-[13px]', isLit ? 'text-handle' : 'text-ink')}>
            <b className="num">{wire.number}</b> {says ?? label}
          </span>
        </span>
      </button>
      {[isJoin.own ? ownEdge : null, isJoin.other ? otherEdge : null].map(
        (x) =>
          x !== null && (
            <span
              key={x}
              aria-hidden
              className="pointer-events-none absolute size-2 rounded-full bg-ink"
              style={{ left: x - 4, top: middleY - 4 }}
            />
          ),
      )}
      <span
        className={clsx(text(leftMeant), 'text-right')}
        style={{ right: `calc(100% - ${from - 10}px)`, top: y + 2, maxWidth: isLeft ? otherRoom : ownRoom }}
      >
        {leftName}
      </span>
      <span
        className={text(rightMeant)}
        style={{ left: to + 10, top: y + 2, maxWidth: isLeft ? ownRoom : otherRoom }}
      >
        {rightName}
      </span>
    </>
  );
}
