/** What of the picture is in sight, and how large. */
import { useReactFlow, useStore } from '@xyflow/react';
import { useEffect, useRef, useState } from 'react';
import type { Layout } from './layOut.ts';
import type { Picture } from './pictureModel.ts';
import type { Lit, Selected } from './selection.ts';

/** Smaller than this its letters cannot be read: then a part of it is shown, and a map of all. */
const LEAST_ZOOM = 1;
/** What is lit may be a little smaller: its colour helps. */
const LIT_ZOOM = 0.75;
const MOST_ZOOM = 1.25;
const MARGIN = 14;

/** Whether parts fit into the room side by side at a size that is read. */
function isLegible(
  ids: readonly string[],
  { places }: Layout,
  picture: Picture,
  width: number,
  height: number,
): boolean {
  const boxes = picture.strips.flatMap((strip) => {
    const place = ids.includes(strip.id) ? (strip.at ?? places.get(strip.id)) : undefined;
    return place ? [{ ...place, right: place.x + strip.width, bottom: place.y + strip.height }] : [];
  });
  const span = (from: number[], to: number[]) => Math.max(...to) - Math.min(...from);
  const wide = span(
    boxes.map(({ x }) => x),
    boxes.map(({ right }) => right),
  );
  const high = span(
    boxes.map(({ y }) => y),
    boxes.map(({ bottom }) => bottom),
  );
  return wide * LIT_ZOOM * 1.2 <= width && high * LIT_ZOOM * 1.2 <= height;
}

/** Shows the whole picture when it is legible so, else as much as is, around the first board; again when the picture or its room changes. */
export function useFit(layout: Layout | null, picture: Picture, lit: Lit | null, selected: Selected): void {
  const { setViewport, setCenter, fitView } = useReactFlow();
  const room = useStore((state) => `${state.width} ${state.height}`);
  // What was chosen elsewhere, in a list or on paper, comes into view once; what is chosen here is in view.
  const [brought] = useState(selected);
  const opening = useRef(true);
  useEffect(() => {
    const [width = 0, height = 0] = room.split(' ').map(Number);
    if (!layout || width === 0 || layout.width === 0) return;
    const isOpening = opening.current;
    opening.current = false;
    // A finding's parts come into view, wherever they stand.
    const litParts = new Set([
      ...[...(lit?.ends ?? [])].map((key) => key.split('.')[0] ?? ''),
      ...picture.strands
        .filter(({ id }) => lit?.wires.has(id) ?? (isOpening && brought?.id === id))
        .flatMap((strand) => [strand.from.part, strand.to.part]),
      ...(isOpening && brought?.kind === 'part' ? [brought.id] : []),
    ]);
    if (litParts.size > 0) {
      const first = lit?.about ?? [...litParts][0] ?? '';
      const place = layout.places.get(first);
      const fits = isLegible([...litParts], layout, picture, width, height);
      requestAnimationFrame(() => {
        if (fits || !place)
          void fitView({ nodes: [...litParts].map((id) => ({ id })), padding: 0.1, maxZoom: 1 });
        // Too far from each other to be read at once: the first of them, and the lines lead on.
        else void setCenter(place.x + 80, place.y + 40, { zoom: LEAST_ZOOM });
      });
      return;
    }
    const whole = Math.min(
      (width - 2 * MARGIN) / layout.width,
      (height - 2 * MARGIN) / layout.height,
      MOST_ZOOM,
    );
    const zoom = Math.max(whole, LEAST_ZOOM);
    const first = picture.strips.find(({ isBoard }) => isBoard) ?? picture.strips[0];
    const place = first && layout.places.get(first.id);
    const middle = first && place ? { x: place.x + first.width / 2, y: place.y + first.height / 2 } : null;
    /** Where one axis begins: in the middle when all of it is in sight, else around the board, never past an edge. */
    const begin = (room: number, size: number, at: number) =>
      size * zoom + 2 * MARGIN <= room
        ? (room - size * zoom) / 2
        : Math.min(MARGIN, Math.max(room - size * zoom - MARGIN, room / 2 - at * zoom));
    void setViewport({
      x: begin(width, layout.width, middle?.x ?? 0),
      y: begin(height, layout.height, middle?.y ?? 0),
      zoom,
    });
  }, [layout, picture, room, lit, brought, setViewport, setCenter, fitView]);
}
