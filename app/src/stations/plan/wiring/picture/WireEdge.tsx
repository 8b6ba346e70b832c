import { BaseEdge, EdgeLabelRenderer, getSmoothStepPath, type Edge, type EdgeProps } from '@xyflow/react';
import { clsx } from 'clsx';
import { memo } from 'react';
import type { Point } from './layOut.ts';
import type { Strand } from './pictureModel.ts';

type WireData = {
  strand: Strand;
  route: readonly Point[] | null;
  lit: boolean;
  faded: boolean;
  says: string | null;
};
export type WireEdgeType = Edge<WireData, 'wire'>;

const pathOf = (route: readonly Point[]): string =>
  route.map(({ x, y }, at) => `${at === 0 ? 'M' : 'L'}${x} ${y}`).join(' ');

/** The middle of the longest stretch: there is room for words. */
function middleOf(route: readonly Point[]): Point {
  let best = { x: route[0]?.x ?? 0, y: route[0]?.y ?? 0, length: -1 };
  for (const [at, to] of route.entries()) {
    const from = route[at - 1];
    const length = from ? Math.abs(to.x - from.x) + Math.abs(to.y - from.y) : -1;
    if (from && length > best.length) best = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2, length };
  }
  return best;
}

/** One wire. As the layout routed it while both ends stand where they were put, else a plain stepped line. */
export const WireEdge = memo(function WireEdge(props: EdgeProps<WireEdgeType>) {
  const { data, selected } = props;
  if (!data) return null;
  const { strand, route, lit, faded, says } = data;
  const [stepped, labelX, labelY] = getSmoothStepPath({ ...props, borderRadius: 2 });
  const routed = route !== null && route.length > 1;
  const middle = routed ? middleOf(route) : null;
  const isOn = lit || selected === true;
  return (
    <>
      <g>
        <title>{strand.name}</title>
        <BaseEdge
          id={props.id}
          path={routed ? pathOf(route) : stepped}
          interactionWidth={14}
          className={clsx('wire', `wire-${strand.kind}`, isOn && 'wire-on', faded && !isOn && 'wire-faded')}
          style={
            isOn || strand.kind !== 'signal' || strand.colour === 'none' || strand.colour === 'white'
              ? undefined
              : { stroke: `var(--tag-${strand.colour})` }
          }
        />
      </g>
      {((strand.tag !== null && !faded) || says !== null) && (
        <EdgeLabelRenderer>
          <span
            className="pointer-events-none absolute rounded-[2px] border border-ink bg-label px-1 font-mono text-[11px] leading-[14px] text-ink"
            style={{
              transform: `translate(-50%, -50%) translate(${middle?.x ?? labelX}px, ${middle?.y ?? labelY}px)`,
            }}
          >
            {says ?? strand.tag}
          </span>
        </EdgeLabelRenderer>
      )}
    </>
  );
});
