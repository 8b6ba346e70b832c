import { useLayoutEffect, useRef, useState } from 'react';

/** Width of an element on the screen, px, kept up to date. Drawings use it so that their letters keep one size. */
export function useElementWidth<Kind extends Element>(initial: number) {
  const ref = useRef<Kind>(null);
  const [width, setWidth] = useState(initial);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setWidth(Math.max(200, Math.round(element.getBoundingClientRect().width)));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width] as const;
}
