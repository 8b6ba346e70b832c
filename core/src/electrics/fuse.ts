import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { cableAmps } from './cable.ts';

/** Ratings one can buy as small cartridge and flat blade fuses, A. */
export const FUSE_SIZES_A = [0.1, 0.2, 0.25, 0.5, 1, 1.6, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30] as const;
/** A fuse is loaded for long to three quarters of its rating at most. */
const LASTING_SHARE = 0.75;

export type FuseAsked = {
  /** Everything that may run at once, mA. */
  readonly currentMa: number;
  /** The thinnest cable behind the fuse, mm². */
  readonly areaMm2: number;
};
export type FuseFound = { readonly fuseA: number; readonly cableA: number; readonly worked: Worked };
export type FuseIssue = {
  readonly kind: 'cable-too-thin';
  readonly neededA: number;
  readonly cableA: number;
  readonly areaMm2: number;
};

/** The smallest fuse that bears the load for long and still protects the cable behind it. It sits within a hand's breadth of the battery. */
export function fuseFor({ currentMa, areaMm2 }: FuseAsked): Result<FuseFound, FuseIssue> {
  const needed = step(
    {
      name: 'at least',
      unit: 'A',
      decimals: 2,
      formula: '{load} ÷ 1000 ÷ {share}',
      inputs: {
        load: input('everything at once', currentMa, 'mA'),
        share: input('share a fuse bears for long', LASTING_SHARE, '', 2),
      },
    },
    ({ load, share }) => load / 1000 / share,
  );
  const cable = step(
    {
      name: 'what the cable bears',
      unit: 'A',
      decimals: 1,
      formula: '6 × {area}',
      inputs: { area: input('thinnest cable behind the fuse', areaMm2, 'mm²', 2) },
    },
    ({ area }) => cableAmps(area),
  );
  const fuseA = FUSE_SIZES_A.find((size) => size >= needed.value);
  if (fuseA === undefined || fuseA > cable.value)
    return fail({ kind: 'cable-too-thin', neededA: fuseA ?? needed.value, cableA: cable.value, areaMm2 });
  const chosen = step(
    {
      name: 'fuse to take',
      unit: 'A',
      decimals: fuseA % 1 === 0 ? 0 : 2,
      formula: 'smallest size from {least} to {most}',
      inputs: {
        least: input('at least', needed.value, 'A', 2),
        most: input('cable bears', cable.value, 'A', 1),
      },
    },
    () => fuseA,
  );
  return ok({
    fuseA,
    cableA: cable.value,
    worked: worked('Fuse', [needed, cable, chosen], {
      source:
        'A fuse protects the cable; a cautious 6 A per mm² for thin bundled wire, and three quarters of the rating for long.',
      note: 'Close to the battery’s plus, before anything else. A motor that starts draws several times its running current: take a slow fuse.',
      wouldChange: 'The load that runs at once, a thicker cable, your cable’s own data.',
    }),
  });
}
