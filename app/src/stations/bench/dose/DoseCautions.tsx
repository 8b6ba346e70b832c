/** What can hurt when water is moved. */
export const DoseCautions = () => (
  <section aria-label="Cautions" className="mt-4 border-t border-rule pt-3 text-[14px] text-soft">
    <p className="max-w-[72ch]">
      <b className="font-semibold text-ink">Before you run it.</b> A tube whose end lies below the water of
      its tank goes on running when the pump stops: keep the end above it, or give it a hole that lets air in.
      A check valve keeps the tube full and the first drops early. Keep pump leads and board above the water
      and away from the jug. A line teed off drinking water needs a backflow preventer as the local code asks;
      mains pumps only behind a certified switched plug with residual-current protection, fitted by a licensed
      person.
    </p>
  </section>
);
