import type { ReactNode } from 'react';
import { MARGIN_MM, PAPERS, wrapText, type PaperName } from './paper.ts';

/** Colours of paper are fixed: a printer knows no night. */
export const INK = '#17211d';
export const SOFT = '#4b5850';
export const TAG_INKS = {
  none: '#ffffff',
  blue: '#2a62b0',
  red: '#b3261b',
  yellow: '#e0ac1e',
  green: '#2f7d3b',
  white: '#ffffff',
  black: '#17211d',
} as const;
const FONT = "'Atkinson Hyperlegible Next Variable', sans-serif";
export const MONO = "'Spline Sans Mono Variable', monospace";

/** One page of paper as a drawing of its own, in millimetres. */
export function Page({
  paper,
  title,
  subtitle,
  page,
  pages,
  children,
}: {
  paper: PaperName;
  title: string;
  subtitle: string;
  page: number;
  pages: number;
  children: ReactNode;
}) {
  const { width, height } = PAPERS[paper];
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`0 0 ${width} ${height}`}
      width={`${width}mm`}
      height={`${height}mm`}
      className="sheet-page"
      role="img"
      aria-label={`${title}, page ${page} of ${pages}`}
      fontFamily={FONT}
      fill={INK}
    >
      <rect width={width} height={height} fill="#ffffff" />
      <text x={MARGIN_MM} y={15} fontSize={6} fontWeight={650}>
        {title}
      </text>
      <text x={MARGIN_MM} y={20.5} fontSize={3.4} fill={SOFT}>
        {subtitle}
      </text>
      <line x1={MARGIN_MM} x2={width - MARGIN_MM} y1={22.5} y2={22.5} stroke={INK} strokeWidth={0.4} />
      {children}
      <line
        x1={MARGIN_MM}
        x2={width - MARGIN_MM}
        y1={height - 13}
        y2={height - 13}
        stroke={INK}
        strokeWidth={0.2}
      />
      <text x={MARGIN_MM} y={height - 8.5} fontSize={3} fill={SOFT}>
        Plain Trowel
      </text>
      <text x={width - MARGIN_MM} y={height - 8.5} fontSize={3} fill={SOFT} textAnchor="end">
        page {page} of {pages}
      </text>
    </svg>
  );
}

/** A text broken over lines. */
export function Lines({
  text,
  x,
  y,
  width,
  size,
  ...rest
}: {
  text: string;
  x: number;
  y: number;
  width: number;
  size: number;
  fontWeight?: number;
  fill?: string;
  fontFamily?: string;
}) {
  return (
    <text fontSize={size} {...rest}>
      {wrapText(text, width, size).map((line, at) => (
        <tspan key={at} x={x} y={y + at * size * 1.3}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

export const linesHeight = (text: string, width: number, size: number): number =>
  wrapText(text, width, size).length * size * 1.3;
