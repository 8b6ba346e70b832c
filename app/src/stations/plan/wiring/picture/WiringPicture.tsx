import {
  ConnectionMode,
  Controls,
  ReactFlow,
  useNodesState,
  useReactFlow,
  useStore,
  ReactFlowProvider,
  type Connection,
  type Edge,
} from '@xyflow/react';
import { useEffect, useMemo, useState } from 'react';
import type { End } from '@plain-trowel/core/wiring/netlist';
import './picture.css';
import { layOutPicture, type Layout } from './layOut.ts';
import type { Picture } from './pictureModel.ts';
import { StripNode, type StripNodeType } from './StripNode.tsx';
import { WireEdge, type WireEdgeType } from './WireEdge.tsx';

export type Selected = { readonly kind: 'part' | 'wire'; readonly id: string } | null;
/** What is lit: the terminals of a finding and the wires on their nets. */
export type Lit = { readonly ends: ReadonlySet<string>; readonly wires: ReadonlySet<string> };

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
                data: { strip, lit: litHere, faded: lit !== null && litHere.size === 0 },
                ariaLabel: `${strip.label}, ${strip.name}`,
              },
            ]
          : [];
      }),
    );
  }, [picture, layout, lit, selected, setNodes]);
  useFit(layout, picture, lit);
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
    </ReactFlow>
  );
}

/** Smaller than this a terminal's name cannot be read: then the width fits and the rest is reached by dragging. */
const LEAST_ZOOM = 0.7;
const MOST_ZOOM = 1.15;
const MARGIN = 14;

/** Shows the whole picture when it is legible so, else its whole width from the top; again when the picture or its room changes. */
function useFit(layout: Layout | null, picture: Picture, lit: Lit | null): void {
  const { setViewport, fitView } = useReactFlow();
  const room = useStore((state) => `${state.width} ${state.height}`);
  useEffect(() => {
    const [width = 0, height = 0] = room.split(' ').map(Number);
    if (!layout || width === 0 || layout.width === 0) return;
    // A finding's parts come into view, wherever they stand.
    const litParts = new Set([
      ...[...(lit?.ends ?? [])].map((key) => key.split('.')[0] ?? ''),
      ...picture.strands
        .filter((strand) => lit?.wires.has(strand.id))
        .flatMap((strand) => [strand.from.part, strand.to.part]),
    ]);
    if (litParts.size > 0) {
      requestAnimationFrame(
        () => void fitView({ nodes: [...litParts].map((id) => ({ id })), padding: 0.15, maxZoom: 1 }),
      );
      return;
    }
    const byWidth = (width - 2 * MARGIN) / layout.width;
    const whole = Math.min(byWidth, (height - 2 * MARGIN) / layout.height, MOST_ZOOM);
    const zoom = whole >= LEAST_ZOOM ? whole : Math.min(Math.max(byWidth, 0.3), 1);
    void setViewport({ x: Math.max(MARGIN, (width - layout.width * zoom) / 2), y: MARGIN, zoom });
  }, [layout, picture, room, lit, setViewport, fitView]);
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
    return picture.strands.map((strand): WireEdgeType & Edge => ({
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
      },
    }));
  }, [picture, layout, lit, selected, moved]);
}
