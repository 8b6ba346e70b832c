import {
  ConnectionMode,
  Controls,
  MiniMap,
  ReactFlow,
  useNodesState,
  useStore,
  ReactFlowProvider,
  ViewportPortal,
  type Connection,
  type Edge,
} from '@xyflow/react';
import { useEffect, useMemo, useState } from 'react';
import type { End } from '@plain-trowel/core/wiring/netlist';
import './picture.css';
import { layOutPicture, type Layout } from './layOut.ts';
import type { Picture, Strand } from './pictureModel.ts';
import type { Lit, Selected } from './selection.ts';
import { useFit } from './useFit.ts';
import { StripNode, type StripNodeType } from './StripNode.tsx';
import { WireEdge, type WireEdgeType } from './WireEdge.tsx';

const NODE_TYPES = { strip: StripNode };
const EDGE_TYPES = { wire: WireEdge };
const NO_LIT: ReadonlySet<string> = new Set();

type Props = {
  picture: Picture;
  lit: Lit | null;
  selected: Selected;
  onSelect: (selected: Selected) => void;
  onConnect: (from: End, to: End) => void;
  onReroute: (wireId: string, from: End, to: End) => void;
  onMove: (partId: string, at: { x: number; y: number }) => void;
};

/** The wiring drawn from its data: parts as strips, wires from terminal to terminal. */
export default function WiringPicture(props: Props) {
  return (
    <ReactFlowProvider>
      <Canvas {...props} />
    </ReactFlowProvider>
  );
}

/** Lays the picture out again whenever its parts or wires change; until that is done the last one stays. */
function useLayout(picture: Picture): Layout | null {
  const [layout, setLayout] = useState<Layout | null>(null);
  // Labels and colours do not move anything.
  const shape = JSON.stringify([
    picture.strips.map((one) => [one.id, one.width, one.height, one.terminals.map((t) => t.id)]),
    picture.strands.map((one) => [one.id, one.from, one.to]),
  ]);
  useEffect(() => {
    let stale = false;
    void layOutPicture(picture).then((done) => {
      if (!stale) setLayout(done);
    });
    return () => {
      stale = true;
    };
    // oxlint-disable-next-line hooks/exhaustive-deps -- the shape stands for the picture
  }, [shape]);
  return layout;
}

function Canvas({ picture, lit, selected, onSelect, onConnect, onReroute, onMove }: Props) {
  const layout = useLayout(picture);
  const [nodes, setNodes, onNodesChange] = useNodesState<StripNodeType>([]);
  useEffect(() => {
    if (!layout) return;
    setNodes(
      picture.strips.flatMap((strip): StripNodeType[] => {
        const place = strip.at ?? layout.places.get(strip.id);
        const litHere = lit ? litTerminals(lit, strip.id) : NO_LIT;
        return place
          ? [
              {
                id: strip.id,
                type: 'strip',
                position: { ...place },
                selected: selected?.kind === 'part' && selected.id === strip.id,
                data: {
                  strip,
                  lit: litHere,
                  drawn: drawnTerminals(picture, strip.id, lit, selected),
                  faded: lit !== null && litHere.size === 0,
                },
                ariaLabel: `${strip.label}, ${strip.name}`,
              },
            ]
          : [];
      }),
    );
  }, [picture, layout, lit, selected, setNodes]);
  useFit(layout, picture, lit, selected);
  const edges = useEdges(picture, layout, lit, selected, nodes);
  return (
    <ReactFlow<StripNodeType, WireEdgeType>
      nodes={nodes}
      edges={edges}
      nodeTypes={NODE_TYPES}
      edgeTypes={EDGE_TYPES}
      onNodesChange={onNodesChange}
      connectionMode={ConnectionMode.Loose}
      connectionRadius={18}
      onConnect={(made) => withEnds(made, onConnect)}
      onReconnect={(edge, made) => withEnds(made, (from, to) => onReroute(edge.id, from, to))}
      onNodeDragStop={(_, node) =>
        onMove(node.id, { x: Math.round(node.position.x), y: Math.round(node.position.y) })
      }
      onNodeClick={(_, node) => onSelect({ kind: 'part', id: node.id })}
      onEdgeClick={(_, edge) => onSelect({ kind: 'wire', id: edge.id })}
      onPaneClick={() => onSelect(null)}
      deleteKeyCode={null}
      nodesFocusable={false}
      edgesFocusable={false}
      zoomOnScroll={false}
      preventScrolling={false}
      minZoom={0.2}
      maxZoom={2.5}
      proOptions={{ hideAttribution: true }}
      aria-label="Wiring picture. The same stands as a table under Table."
    >
      <Controls showInteractive={false} position="bottom-left" />
      {layout && <Joins layout={layout} nodes={nodes} />}
      {layout && <WholeMap layout={layout} />}
      {layout === null && <p className="absolute top-3 left-4 text-soft">Drawing the wiring …</p>}
    </ReactFlow>
  );
}

/** Dots where lines part. They go with the layout: of a part that was moved the lines are drawn anew, and part at its terminals. */
function Joins({ layout, nodes }: { layout: Layout; nodes: readonly StripNodeType[] }) {
  const isMoved = nodes.some(({ id, position }) => {
    const place = layout.places.get(id);
    return !place || place.x !== position.x || place.y !== position.y;
  });
  if (isMoved) return null;
  return (
    <ViewportPortal>
      <svg
        aria-hidden
        className="pointer-events-none absolute top-0 left-0 overflow-visible"
        width="1"
        height="1"
      >
        {layout.joins.map(({ x, y }) => (
          <circle key={`${x} ${y}`} cx={x} cy={y} r={3.5} className="fill-ink" />
        ))}
      </svg>
    </ViewportPortal>
  );
}

/** The whole on a small map, which is dragged to move about; only where not all of it is in sight. */
function WholeMap({ layout }: { layout: Layout }) {
  const isCut = useStore(
    ({ width, height, transform: [, , zoom] }) =>
      layout.width * zoom > width || layout.height * zoom > height,
  );
  return isCut ? (
    <MiniMap
      pannable
      ariaLabel="Map of the whole wiring: drag it to move about"
      position="bottom-right"
      style={{ width: 150, height: 110 }}
      bgColor="var(--paper)"
      maskColor="color-mix(in srgb, var(--ink) 12%, transparent)"
      nodeColor="var(--soft)"
      nodeBorderRadius={0}
      className="border border-ink"
    />
  ) : null;
}

const litTerminals = (lit: Lit, partId: string): ReadonlySet<string> =>
  new Set(
    [...lit.ends].filter((key) => key.startsWith(`${partId}.`)).map((key) => key.slice(partId.length + 1)),
  );

function withEnds(
  { source, sourceHandle, target, targetHandle }: Connection,
  tell: (from: End, to: End) => void,
): void {
  if (sourceHandle && targetHandle)
    tell({ part: source, terminal: sourceHandle }, { part: target, terminal: targetHandle });
}

/** Whether a wire is looked at: lit, chosen, or of the part that is. */
const isLooked = ({ id, from, to }: Strand, lit: Lit | null, selected: Selected): boolean =>
  lit?.wires.has(id) === true ||
  (selected?.kind === 'wire' && selected.id === id) ||
  (selected?.kind === 'part' && lit === null && (selected.id === from.part || selected.id === to.part));

/** Terminals of a part whose symbols are drawn as lines just now. */
const drawnTerminals = (
  picture: Picture,
  partId: string,
  lit: Lit | null,
  selected: Selected,
): ReadonlySet<string> =>
  new Set(
    picture.strands
      .filter((strand) => strand.isSymbol && isLooked(strand, lit, selected))
      .flatMap(({ from, to }) => [from, to])
      .flatMap(({ part, terminal }) => (part === partId ? [terminal] : [])),
  );

/** Wires follow the layout's route while both of their parts stand where it put them. */
function useEdges(
  picture: Picture,
  layout: Layout | null,
  lit: Lit | null,
  selected: Selected,
  nodes: readonly StripNodeType[],
): WireEdgeType[] {
  const moved = nodes
    .filter((node) => {
      const place = layout?.places.get(node.id);
      return !place || place.x !== node.position.x || place.y !== node.position.y;
    })
    .map((node) => node.id)
    .join(' ');
  return useMemo(() => {
    const away = new Set(moved.split(' '));
    // What a symbol stands for is drawn while it is looked at.
    const drawn = picture.strands.filter((strand) => !strand.isSymbol || isLooked(strand, lit, selected));
    return drawn.map((strand): WireEdgeType & Edge => ({
      id: strand.id,
      type: 'wire',
      source: strand.from.part,
      sourceHandle: strand.from.terminal,
      target: strand.to.part,
      targetHandle: strand.to.terminal,
      reconnectable: true,
      selected: selected?.kind === 'wire' && selected.id === strand.id,
      data: {
        strand,
        route:
          away.has(strand.from.part) || away.has(strand.to.part)
            ? null
            : (layout?.routes.get(strand.id) ?? null),
        lit: lit?.wires.has(strand.id) ?? false,
        faded: lit !== null,
        says: lit?.says.get(strand.id) ?? null,
      },
    }));
  }, [picture, layout, lit, selected, moved]);
}
