/** Stands where a page or a sheet will be as soon as it is loaded; it is the head of the page as long, so that nobody who listens to it is without one. */
export const OnItsWay = ({ text }: { text: string }) => (
  <h1 aria-busy="true" className="text-soft">
    {text}
  </h1>
);
