/** The stations in the order of the work, with the sheets that are made. A sheet that is not made yet is not shown. */
export const STATIONS = [
  {
    id: 'plan',
    name: 'Plan',
    sheets: [
      { id: 'parts', name: 'Parts' },
      { id: 'wiring', name: 'Wiring' },
    ],
  },
  {
    id: 'bench',
    name: 'Bench',
    sheets: [
      { id: 'readout', name: 'Readout' },
      { id: 'calibrate', name: 'Calibrate' },
      { id: 'dose', name: 'Dose' },
    ],
  },
  {
    id: 'rules',
    name: 'Rules',
    sheets: [
      { id: 'limits', name: 'Limits' },
      { id: 'sketch', name: 'Sketch' },
    ],
  },
  {
    id: 'season',
    name: 'Season',
    sheets: [
      { id: 'today', name: 'Today' },
      { id: 'log', name: 'Log' },
    ],
  },
] as const;

export type StationId = (typeof STATIONS)[number]['id'];
export type SheetId = (typeof STATIONS)[number]['sheets'][number]['id'];

export const sheetPath = (
  gardenId: string,
  station: StationId,
  sheet: SheetId,
  plotId: string | null,
): string => `/g/${gardenId}/${station}/${sheet}${plotId === null ? '' : `?plot=${plotId}`}`;
