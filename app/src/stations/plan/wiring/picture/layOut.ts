/** Where strips and wires of a picture go: worked out by the layout library in its own worker, so that the page never waits. */
import ELK, { type ElkExtendedEdge, type ElkNode } from 'elkjs/lib/elk-api.js';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';
import { terminalY, type Picture } from './pictureModel.ts';

export type Point = { readonly x: number; readonly y: number };
export type Layout = {
  readonly places: ReadonlyMap<string, Point>;
  /** Corners of each wire, its two ends included. */
  readonly routes: ReadonlyMap<string, readonly Point[]>;
  readonly width: number;
  readonly height: number;
};

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.partitioning.activate': 'true',
  'elk.layered.spacing.nodeNodeBetweenLayers': '28',
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
  const sideOf = new Map(
    picture.strips.flatMap((strip) =>
      strip.terminals.map((one) => [`${strip.id}.${one.id}`, one.side] as const),
    ),
  );
  const graph: ElkNode = {
    id: 'picture',
    layoutOptions: OPTIONS,
    children: picture.strips.map((strip) => ({
      id: strip.id,
      width: strip.width,
      height: strip.height,
      layoutOptions: {
        'elk.portConstraints': 'FIXED_POS',
        'elk.partitioning.partition': String(strip.column),
      },
      ports: strip.terminals.map((terminal) => ({
        id: `${strip.id}.${terminal.id}`,
        x: terminal.side === 'left' ? 0 : strip.width,
        y: terminalY(strip, terminal.row),
        width: 0,
        height: 0,
        layoutOptions: { 'elk.port.side': terminal.side === 'left' ? 'WEST' : 'EAST' },
      })),
    })),
    edges: picture.strands.map((strand): ElkExtendedEdge => {
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
  return {
    places: new Map((done.children ?? []).map((node) => [node.id, { x: node.x ?? 0, y: node.y ?? 0 }])),
    routes: new Map(
      (done.edges ?? []).map((edge) => {
        const [section] = edge.sections ?? [];
        return [
          edge.id,
          section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [],
        ];
      }),
    ),
    width: done.width ?? 0,
    height: done.height ?? 0,
  };
}
