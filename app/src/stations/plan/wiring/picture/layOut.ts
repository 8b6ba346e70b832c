/** Where strips and wires of a picture go: worked out by the layout library in its own worker, so that the page never waits. */
import ELK, { type ElkExtendedEdge, type ElkNode } from 'elkjs/lib/elk-api.js';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';
import { terminalY, type Picture, type Side } from './pictureModel.ts';

export type Point = { readonly x: number; readonly y: number };
export type Layout = {
  readonly places: ReadonlyMap<string, Point>;
  /** Corners of each wire, its two ends included. */
  readonly routes: ReadonlyMap<string, readonly Point[]>;
  /** Where lines that come from one terminal part from each other: dots, for a crossing has none. */
  readonly joins: readonly Point[];
  readonly width: number;
  readonly height: number;
};

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.partitioning.activate': 'true',
  // What only symbols join is set out side by side, as a screen is wide.
  'elk.aspectRatio': '1.9',
  'elk.spacing.componentComponent': '24',
  'elk.layered.spacing.nodeNodeBetweenLayers': '22',
  'elk.spacing.nodeNode': '14',
  'elk.spacing.edgeEdge': '6',
  'elk.spacing.edgeNode': '9',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '5',
  'elk.layered.spacing.edgeNodeBetweenLayers': '9',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
};

let engine: InstanceType<typeof ELK> | null = null;
const elk = () => (engine ??= new ELK({ workerFactory: () => new Worker(workerUrl) }));

export async function layOutPicture(picture: Picture): Promise<Layout> {
  const lines = picture.strands.filter(({ isSymbol }) => !isSymbol);
  const sideOf = new Map<string, Side>(
    picture.strips.flatMap((strip) =>
      strip.terminals.map((one) => [`${strip.id}.${one.id}`, one.side] as const),
    ),
  );
  const graph: ElkNode = {
    id: 'picture',
    layoutOptions: OPTIONS,
    children: picture.strips.map((strip) => ({
      id: strip.id,
      // With its marks: lines end behind them.
      width: strip.pad.left + strip.width + strip.pad.right,
      height: strip.height,
      layoutOptions: {
        'elk.portConstraints': 'FIXED_POS',
        'elk.partitioning.partition': String(strip.column),
      },
      ports: strip.terminals.map((terminal) => ({
        id: `${strip.id}.${terminal.id}`,
        x: terminal.side === 'left' ? 0 : strip.pad.left + strip.width + strip.pad.right,
        y: terminalY(strip, terminal.row),
        width: 0,
        height: 0,
        layoutOptions: { 'elk.port.side': terminal.side === 'left' ? 'WEST' : 'EAST' },
      })),
    })),
    edges: lines.map((strand): ElkExtendedEdge => {
      const ends = [
        `${strand.from.part}.${strand.from.terminal}`,
        `${strand.to.part}.${strand.to.terminal}`,
      ] as const;
      // The layout reads from left to right: the end that looks right comes first.
      const [source, target] = sideOf.get(ends[0]) === 'right' ? ends : [ends[1], ends[0]];
      return { id: strand.id, sources: [source], targets: [target] };
    }),
  };
  const done = await elk().layout(graph);
  const strips = new Map(picture.strips.map((strip) => [strip.id, strip]));
  const places = new Map(
    (done.children ?? []).map((node) => [
      node.id,
      { x: (node.x ?? 0) + (strips.get(node.id)?.pad.left ?? 0), y: node.y ?? 0 },
    ]),
  );
  /** Where a line meets its strip, under the marks. */
  const edgeOf = (key: string, { y }: Point): Point => {
    const [id = ''] = key.split('.');
    const left = places.get(id)?.x ?? 0;
    return { x: sideOf.get(key) === 'left' ? left : left + (strips.get(id)?.width ?? 0), y };
  };
  const routes = new Map(
    (done.edges ?? []).map((edge): readonly [string, readonly Point[]] => {
      const [section] = edge.sections ?? [];
      const [source = '', target = ''] = [edge.sources[0], edge.targets[0]];
      return [
        edge.id,
        section
          ? [
              edgeOf(source, section.startPoint),
              section.startPoint,
              ...(section.bendPoints ?? []),
              section.endPoint,
              edgeOf(target, section.endPoint),
            ]
          : [],
      ];
    }),
  );
  return {
    places,
    routes,
    joins: joinsOf(picture, routes),
    width: done.width ?? 0,
    height: done.height ?? 0,
  };
}

/** Of every two lines that end at one terminal, the last point that they have in common, unless that is the terminal itself. */
function joinsOf(picture: Picture, routes: ReadonlyMap<string, readonly Point[]>): readonly Point[] {
  const from = new Map<string, (readonly Point[])[]>();
  for (const strand of picture.strands) {
    const route = routes.get(strand.id) ?? [];
    const [first, last] = [route[0], route.at(-1)];
    if (!first || !last) continue;
    for (const [start, way] of [
      [first, route],
      [last, route.toReversed()],
    ] as const) {
      const key = `${start.x} ${start.y}`;
      const there = from.get(key);
      if (there) there.push(way);
      else from.set(key, [way]);
    }
  }
  const joins = new Map<string, Point>();
  for (const ways of from.values())
    for (const [at, one] of ways.entries())
      for (const other of ways.slice(at + 1)) {
        const join = partingOf(one, other);
        if (join) joins.set(`${join.x} ${join.y}`, join);
      }
  return [...joins.values()];
}

/** Where two stepped lines from one point part; null when they do so at that point, or one runs within the other. */
export function partingOf(one: readonly Point[], other: readonly Point[]): Point | null {
  let [here] = one;
  const [start] = one;
  if (!here || !start) return null;
  const [mine, theirs] = [one.slice(1), other.slice(1)];
  for (;;) {
    while (mine[0] && isSame(mine[0], here)) mine.shift();
    while (theirs[0] && isSame(theirs[0], here)) theirs.shift();
    const [a, b] = [mine[0], theirs[0]];
    if (!a || !b) return null;
    const [towardsA, towardsB] = [directionOf(here, a), directionOf(here, b)];
    if (towardsA !== towardsB) return isSame(here, start) ? null : here;
    // On along the shorter of the two.
    here = distance(here, a) <= distance(here, b) ? a : b;
  }
}

const isSame = (one: Point, other: Point): boolean =>
  Math.abs(one.x - other.x) < 0.01 && Math.abs(one.y - other.y) < 0.01;
const directionOf = (from: Point, to: Point): string =>
  `${Math.sign(Math.round(to.x - from.x))} ${Math.sign(Math.round(to.y - from.y))}`;
const distance = (from: Point, to: Point): number => Math.abs(to.x - from.x) + Math.abs(to.y - from.y);
