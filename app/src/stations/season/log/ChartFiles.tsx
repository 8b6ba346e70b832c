import type { RefObject } from 'react';
import { chartSvg, type ChartPicture } from '@plain-trowel/core/records/chartSvg';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { download, fileNameOf } from '../../../data/download.ts';
import { Button } from '../../../ui/Button.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { inkOf } from '../../../charts/chartInk.ts';

const TITLE_PX = 40;

/** The chart as a picture file: as lines that any program can scale, or as it stands on the screen. */
export function ChartFiles({
  picture,
  around,
}: {
  picture: () => ChartPicture;
  /** What the canvas of the chart stands in. */
  around: RefObject<HTMLDivElement | null>;
}) {
  const nameOf = ({ title, fromMs }: ChartPicture) => `${fileNameOf(title)}-${isoOf(fromMs).slice(0, 10)}`;
  const asSvg = () => {
    const made = picture();
    download(`${nameOf(made)}.svg`, chartSvg(made), 'image/svg+xml');
  };
  const asPng = () => {
    const made = picture();
    const canvas = around.current?.querySelector('canvas');
    const copy = canvas && withTitle(canvas, made.title);
    if (!copy) {
      showToast({ tone: 'problem', text: 'There is no chart to save yet.' });
      return;
    }
    copy.toBlob((blob) => {
      if (blob) download(`${nameOf(made)}.png`, blob, 'image/png');
      else showToast({ tone: 'problem', text: 'The browser could not make the picture. Try the SVG.' });
    }, 'image/png');
  };
  return (
    <p className="no-print mt-1 flex flex-wrap gap-x-4">
      <Button look="quiet" onClick={asPng}>
        Save the chart as PNG
      </Button>
      <Button look="quiet" onClick={asSvg}>
        Save it as SVG
      </Button>
    </p>
  );
}

/** The chart on paper, its title above it. */
function withTitle(canvas: HTMLCanvasElement, title: string): HTMLCanvasElement | null {
  const scale = canvas.width / Math.max(1, canvas.clientWidth);
  const copy = document.createElement('canvas');
  copy.width = canvas.width;
  copy.height = canvas.height + TITLE_PX * scale;
  const pen = copy.getContext('2d');
  if (!pen || canvas.width === 0) return null;
  pen.fillStyle = inkOf('--paper');
  pen.fillRect(0, 0, copy.width, copy.height);
  pen.fillStyle = inkOf('--ink');
  pen.font = `600 ${17 * scale}px 'Atkinson Hyperlegible Next Variable', sans-serif`;
  pen.fillText(title, 8 * scale, 26 * scale, copy.width - 16 * scale);
  pen.drawImage(canvas, 0, TITLE_PX * scale);
  return copy;
}
