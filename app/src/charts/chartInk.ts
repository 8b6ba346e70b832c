/** Colours and band patterns for drawing on a canvas, read from the page's tokens. */
import type { BandName } from '@plain-trowel/core/quantity/bands';

export const inkOf = (token: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(token).trim();

/** Pale patterns behind a line: the same dots, hatch and waves as on the ruler. */
export function washOf(band: BandName): CanvasPattern | string {
  if (band === 'right') return inkOf('--leaf-wash');
  const tile = document.createElement('canvas');
  const [width, height] = band === 'wet' ? [14, 10] : band === 'flooded' ? [9, 7] : [9, 9];
  tile.width = width;
  tile.height = height;
  const pen = tile.getContext('2d');
  if (!pen) return 'transparent';
  pen.globalAlpha = 0.42;
  drawTile(pen, band, width, height);
  return pen.createPattern(tile, 'repeat') ?? 'transparent';
}

function drawTile(
  pen: CanvasRenderingContext2D,
  band: Exclude<BandName, 'right'>,
  width: number,
  height: number,
): void {
  pen.beginPath();
  switch (band) {
    case 'dry':
      pen.fillStyle = inkOf('--chaff');
      pen.arc(3, 3, 1.1, 0, 2 * Math.PI);
      pen.fill();
      return;
    case 'low':
      pen.strokeStyle = inkOf('--husk');
      pen.moveTo(-1, height + 1);
      pen.lineTo(width + 1, -1);
      break;
    case 'wet':
    case 'flooded':
      pen.strokeStyle = inkOf(band === 'wet' ? '--rill' : '--deep');
      pen.moveTo(0, height / 2);
      pen.quadraticCurveTo(width / 4, height / 2 - 4, width / 2, height / 2);
      pen.quadraticCurveTo((3 * width) / 4, height / 2 + 4, width, height / 2);
      break;
  }
  pen.lineWidth = 1.2;
  pen.stroke();
}
