/** A drawn page as a file: SVG as it is, or a PNG made of it with the program's own letters inside. */
import sansUrl from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url';
import monoUrl from '@fontsource-variable/spline-sans-mono/files/spline-sans-mono-latin-wght-normal.woff2?url';

const PNG_DOTS_PER_MM = 8;

/** The page as text, with both faces inside, so that it looks the same on any machine. */
export async function svgText(page: SVGSVGElement): Promise<string> {
  const copy = page.cloneNode(true) as SVGSVGElement;
  copy.removeAttribute('class');
  for (const shown of copy.querySelectorAll('.no-print')) shown.remove();
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = [
    await face('Atkinson Hyperlegible Next Variable', sansUrl),
    await face('Spline Sans Mono Variable', monoUrl),
  ].join('\n');
  copy.prepend(style);
  return new XMLSerializer().serializeToString(copy);
}

async function face(family: string, url: string): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer());
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return `@font-face { font-family: '${family}'; font-weight: 200 800; src: url(data:font/woff2;base64,${btoa(binary)}) format('woff2'); }`;
}

/** @throws when the browser cannot draw the page */
export async function pngBlob(page: SVGSVGElement): Promise<Blob> {
  const { width, height } = page.viewBox.baseVal;
  const text = await svgText(page);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * PNG_DOTS_PER_MM);
  canvas.height = Math.round(height * PNG_DOTS_PER_MM);
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return await new Promise((done, fail) =>
    canvas.toBlob((blob) => (blob ? done(blob) : fail(new Error('no picture'))), 'image/png'),
  );
}
