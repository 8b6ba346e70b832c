import type { ReactNode } from 'react';
import type { Certificate } from '@plain-trowel/core/garden/bind/certificate';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { INK, MONO, Page, SOFT } from '../../../../paper/Page.tsx';
import { MARGIN_MM, wrapText } from '../../../../paper/paper.ts';
import { fullDay } from '@plain-trowel/core/quantity/timeText';
import { markText } from '../../../../words/calibrationText.ts';
import { depthText, temperatureText } from '../../../../words/unitText.ts';

const LINE = 5.2;
const WIDE_MM = 140;

/** One page that says what a calibration rests on and how far it may be off. */
export function CertificatePage({ certificate, timeZone }: { certificate: Certificate; timeZone: string }) {
  const facts = factsOf(certificate, timeZone);
  const pointsY = 32 + facts.length * LINE + 9;
  const scaleY = pointsY + (certificate.points.length + 2) * LINE + 8;
  const tableY = scaleY + (certificate.scale.length + 2) * LINE + 8;
  return (
    <Page
      paper="A4"
      title={`Calibration of ${certificate.probe.label}`}
      subtitle={`${certificate.garden}, ${certificate.plot}. ${certificate.percent}.`}
      page={1}
      pages={1}
    >
      {facts.map(([name, value], at) => (
        <g key={name} fontSize={3.5}>
          <text x={MARGIN_MM} y={32 + at * LINE} fill={SOFT}>
            {name}
          </text>
          <text x={MARGIN_MM + 42} y={32 + at * LINE}>
            {wrapText(value, WIDE_MM, 3.5)[0]}
          </text>
        </g>
      ))}
      <Rows
        y={pointsY}
        head={['Point', certificate.percent, 'Raw counts', 'Noise', 'Settled']}
        xs={[0, 70, 112, 134, 156]}
        rows={certificate.points.map((point) => [
          `${point.condition}${point.used ? '' : ' (left out)'}`,
          point.percent === null ? '–' : formatNumber(point.percent, 1),
          point.rawCounts.map((one) => formatCounts(Math.round(one))).join(', '),
          `± ${formatNumber(point.noiseCounts, 1)}`,
          point.settled ? 'yes' : 'no',
        ])}
      />
      <Rows
        y={scaleY}
        head={['Raw counts', certificate.percent, '± (95 in 100)']}
        xs={[20, 70, 112]}
        rows={certificate.scale.map((one) => [
          formatCounts(one.rawCounts),
          formatNumber(one.percent, 1),
          formatNumber(one.plusMinus, 1),
        ])}
      />
      <Rows
        y={tableY}
        head={['Table for a board', ...certificate.table.map((one) => formatCounts(one.raw))]}
        xs={[0, ...certificate.table.map((_, at) => 54 + 18 * at)]}
        rows={[[`tenths of ${certificate.percent}`, ...certificate.table.map((one) => String(one.tenths))]]}
      />
      <text x={MARGIN_MM} y={tableY + 3 * LINE} fontSize={3} fill={SOFT}>
        {`Largest error of the table ${formatNumber(certificate.tableLargestErrorTenths / 10, 2)} %. Raw values are never changed; percent is worked out from them.`}
      </text>
    </Page>
  );
}

function factsOf(of: Certificate, timeZone: string): readonly (readonly [string, string])[] {
  const all: readonly (readonly [string, string])[] = [
    ['Probe', `${of.probe.label}, ${of.probe.kind}, ${depthText(of.probe.depthCm)} deep`],
    ['Board', `${of.board.name}, ${of.board.traits}, ${formatNumber(of.board.supplyV, 2)} V`],
    ['Method', `${of.method}, curve: ${of.curve}`],
    ['Made', `${fullDay(Date.parse(of.madeAt), timeZone)}${of.who ? ` by ${of.who}` : ''}`],
    ['Soil', of.soil],
    ['Temperature', of.temperatureC === null ? 'not noted' : temperatureText(of.temperatureC)],
    [
      'Span',
      `${formatNumber(of.spanCounts)} counts, ${formatNumber(of.countsPerPercent, 1)} for one ${of.percent} in the middle; one count is ${formatNumber(of.quantisationPercent, 3)} %`,
    ],
    [
      'Repeatability',
      of.repeatability
        ? `${formatNumber(of.repeatability.counts, 1)} counts (${formatNumber(of.repeatability.percent, 2)} %) for one pushing in, standard deviation`
        : '',
    ],
    ['Marked', markText(of.marks)],
    ['Due again', of.recalibrateBy?.slice(0, 10) ?? ''],
    ['Note', of.note],
    ['Warnings', of.warnings.map((one) => one.replaceAll('-', ' ')).join(', ')],
    [
      'Kind',
      [of.simulated && 'from a stand-in', of.guess && 'a guess from a similar probe']
        .filter(Boolean)
        .join(', '),
    ],
  ];
  return all.filter(([, value]) => value !== '');
}

function Rows({
  y,
  head,
  rows,
  xs,
}: {
  y: number;
  head: readonly string[];
  rows: readonly (readonly string[])[];
  xs: readonly number[];
}): ReactNode {
  const isNumber = (at: number) => at > 0 || xs[0] !== 0;
  const cell = (text: string, at: number, row: number, bold: boolean) => (
    <text
      key={at}
      x={MARGIN_MM + (xs[at] ?? 0)}
      y={y + row * LINE}
      textAnchor={isNumber(at) ? 'end' : 'start'}
      fontFamily={bold || !isNumber(at) ? undefined : MONO}
      fontWeight={bold ? 650 : undefined}
    >
      {text}
    </text>
  );
  return (
    <g fontSize={3.3} fill={INK}>
      {head.map((text, at) => cell(text, at, 0, true))}
      <line x1={MARGIN_MM} x2={210 - MARGIN_MM} y1={y + 1.6} y2={y + 1.6} stroke={INK} strokeWidth={0.3} />
      {rows.map((row, at) => (
        <g key={at}>{row.map((text, column) => cell(text, column, at + 1, false))}</g>
      ))}
    </g>
  );
}
