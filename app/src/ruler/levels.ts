/** Heights of the ruler's parts, px from its top. Without flags the bar moves up into their room. */
export type Levels = {
  readonly percentY: number;
  readonly barY: number;
  readonly barEnd: number;
  readonly height: number;
};

export const LEFT = 12;
export const NOW_Y = 14;
export const FLAG_Y = 32;
export const BAR_HEIGHT = 62;
/** Room under the bar for raw counts and the names of the pegs. */
const BELOW = 62;
/** And for a second line of names. */
const SECOND_LINE = 14;

export function levelsOf(hasFlags: boolean, hasSecondLine: boolean): Levels {
  const barY = hasFlags ? 84 : 64;
  return {
    percentY: barY - 18,
    barY,
    barEnd: barY + BAR_HEIGHT,
    height: barY + BAR_HEIGHT + BELOW + (hasSecondLine ? SECOND_LINE : 0),
  };
}
