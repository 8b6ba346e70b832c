/** What the scale at the left of a chart takes of its width, px: the same for every chart, so that what stands below each other has one time. */
export const AXIS_PX = 62;
