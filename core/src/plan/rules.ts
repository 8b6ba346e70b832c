/**
 * What speaks for and against each candidate, by the answers. Each rule has a weight and the sentence a maker would say; the ranking is
 * their sum and nothing else. Weights: 1 a convenience, 2 a clear reason, 4 decides, 8 rules out.
 */
import type { Answers } from './interview.ts';

export const TOPICS = ['probe', 'board', 'link', 'power'] as const;
export type Topic = (typeof TOPICS)[number];

export type Rule = {
  readonly topic: Topic;
  readonly candidates: readonly string[];
  readonly when: (answers: Answers, probes: number) => boolean;
  readonly points: number;
  readonly says: string;
};

const rule = (topic: Topic, candidates: string, points: number, says: string, when: Rule['when']): Rule => ({
  topic,
  candidates: candidates.split(' '),
  when,
  points,
  says,
});
const far = (answers: Answers, most: number) => answers.cableM !== null && answers.cableM > most;
const onBattery = ({ power }: Answers) => power === 'battery' || power === 'solar';
const outdoors = ({ place }: Answers) => place === 'bed' || place === 'lawn';

export const CANDIDATES: Readonly<Record<Topic, readonly string[]>> = {
  probe: [
    'probe-capacitive',
    'probe-fork',
    'probe-electrodes',
    'probe-digital-capacitive',
    'probe-bus-rods',
    'probe-bus-seven',
    'probe-volumetric',
    'probe-loop',
    'probe-comparator',
    'probe-tensiometer',
  ],
  board: [
    'board-wifi-two-groups',
    'board-wifi-one',
    'board-8bit-six',
    'board-8bit-eight',
    'board-33-three',
    'board-32bit-seven',
  ],
  link: ['link-lamp', 'link-serial', 'link-http', 'link-mqtt'],
  power: [
    'supply-usb',
    'supply-12v',
    'battery-12v solar-panel',
    'battery-lithium solar-panel-lithium',
    'battery-12v',
    'battery-aa',
  ],
};

/** Links are not parts; their words stand here. */
export const LINK_NAMES: Readonly<Record<string, string>> = {
  'link-lamp': 'no link: a lamp on the board',
  'link-serial': 'USB serial line to this computer',
  'link-http': 'Wi-Fi, reports to the gateway by HTTP',
  'link-mqtt': 'Wi-Fi, reports to the gateway by MQTT',
};

export const RULES: readonly Rule[] = [
  // Probes
  rule(
    'probe',
    'probe-capacitive',
    2,
    'The usual start: cheap, and it does not corrode at once.',
    () => true,
  ),
  rule('probe', 'probe-fork probe-comparator', -2, 'It corrodes: weeks to a year under power.', () => true),
  rule(
    'probe',
    'probe-fork probe-electrodes probe-comparator',
    2,
    'It costs pennies.',
    ({ budget }) => budget === 'little',
  ),
  rule(
    'probe',
    'probe-bus-seven probe-volumetric probe-loop probe-tensiometer',
    -4,
    'It costs more than everything else together.',
    ({ budget }) => budget === 'little',
  ),
  rule('probe', 'probe-bus-rods', -1, 'It costs several sticks.', ({ budget }) => budget === 'little'),
  rule(
    'probe',
    'probe-volumetric probe-loop',
    2,
    'Stable and calibrated, and the money is there.',
    ({ budget }) => budget === 'ample',
  ),
  rule(
    'probe',
    'probe-bus-rods',
    1,
    'Calibrated from the maker, at a middling price.',
    ({ budget }) => budget !== 'little' && budget !== null,
  ),
  rule(
    'probe',
    'probe-bus-rods probe-bus-seven probe-volumetric probe-loop',
    4,
    'It may be buried whole for a season.',
    ({ stays }) => stays === 'buried',
  ),
  rule(
    'probe',
    'probe-capacitive probe-digital-capacitive',
    -2,
    'Its electronics stand at the line and must be sealed to stay out for a season.',
    ({ stays }) => stays === 'buried',
  ),
  rule(
    'probe',
    'probe-fork probe-electrodes probe-comparator',
    -2,
    'Left in wet soil for a season it rots.',
    ({ stays }) => stays === 'buried',
  ),
  rule(
    'probe',
    'probe-bus-rods probe-bus-seven probe-loop',
    4,
    'Long cable does not change its reading.',
    (answers) => far(answers, 5),
  ),
  rule('probe', 'probe-volumetric', 1, 'It drives some metres of cable.', (answers) => far(answers, 5)),
  rule(
    'probe',
    'probe-capacitive probe-fork probe-electrodes',
    -3,
    'Its voltage shifts and picks up noise over long cable.',
    (answers) => far(answers, 5),
  ),
  rule(
    'probe',
    'probe-digital-capacitive',
    -8,
    'Its bus was made for one box, not for a garden.',
    (answers) => far(answers, 1.5),
  ),
  rule(
    'probe',
    'probe-comparator',
    4,
    'A screw sets the point; no code, no numbers.',
    ({ wants }) => wants === 'lamp',
  ),
  rule('probe', 'probe-comparator', -8, 'It gives no number to log.', ({ wants }) => wants === 'number'),
  rule(
    'probe',
    'probe-bus-rods probe-bus-seven probe-volumetric probe-loop probe-tensiometer',
    -2,
    'More than a lamp needs.',
    ({ wants }) => wants === 'lamp',
  ),
  rule(
    'probe',
    'probe-digital-capacitive',
    -3,
    'Four addresses on one bus are fewer than your probes.',
    (_, probes) => probes > 4,
  ),
  rule(
    'probe',
    'probe-bus-rods probe-bus-seven',
    2,
    'Any number of them share two pins.',
    (_, probes) => probes > 4,
  ),
  rule('probe', 'probe-loop', -3, 'It wants 12 to 24 V all the time.', onBattery),
  rule(
    'probe',
    'probe-loop',
    -2,
    'It wants 12 V or more, and USB gives 5 V.',
    ({ power }) => power === 'usb',
  ),
  rule(
    'probe',
    'probe-bus-rods probe-bus-seven',
    -1,
    'Many want more than 5 V; look before you buy.',
    ({ power }) => power === 'usb',
  ),
  rule('probe', 'probe-tensiometer', -2, 'Frost breaks it.', outdoors),
  rule('probe', 'probe-tensiometer', -1, 'It must be filled again now and then.', () => true),
  rule('probe', 'probe-bus-seven', -1, 'Its N-P-K and pH are indications only.', () => true),
  rule('probe', 'probe-electrodes', -1, 'Every one is its own instrument: references for each.', () => true),
  // Boards
  rule(
    'board',
    'board-wifi-two-groups board-wifi-one',
    4,
    'It reports by itself over Wi-Fi.',
    ({ wifi, wants }) => wants === 'number' && (wifi === 'good' || wifi === 'weak'),
  ),
  rule(
    'board',
    'board-wifi-two-groups',
    2,
    'Six inputs that work while the radio is on.',
    (_, probes) => probes > 1,
  ),
  rule(
    'board',
    'board-wifi-one',
    -4,
    'One analog input for all your probes: it needs a converter.',
    (_, probes) => probes > 1,
  ),
  rule('board', 'board-33-three', -3, 'Three inputs are fewer than your probes.', (_, probes) => probes > 3),
  rule(
    'board',
    'board-8bit-six board-wifi-two-groups',
    -2,
    'Six inputs are fewer than your probes.',
    (_, probes) => probes > 6,
  ),
  rule('board', 'board-8bit-eight', 1, 'Eight inputs.', (_, probes) => probes > 4),
  rule('board', 'board-32bit-seven', 1, 'Seven inputs.', (_, probes) => probes > 4),
  rule(
    'board',
    'board-8bit-six board-8bit-eight',
    2,
    'Forgiving, and 5 V probes fit it directly.',
    ({ wants }) => wants === 'lamp',
  ),
  rule(
    'board',
    'board-8bit-six board-8bit-eight board-33-three board-32bit-seven',
    1,
    'No radio to feed, and Wi-Fi would not reach anyway.',
    ({ wifi }) => wifi === 'none',
  ),
  rule(
    'board',
    'board-wifi-two-groups board-wifi-one',
    -1,
    'Its radio has nobody to talk to.',
    ({ wifi }) => wifi === 'none',
  ),
  rule('board', 'board-8bit-six', -3, 'It never sleeps deeply: a battery is empty in days.', onBattery),
  rule('board', 'board-wifi-two-groups', 2, 'Asleep it takes next to nothing.', onBattery),
  rule('board', 'board-wifi-one', 1, 'Asleep it takes little.', onBattery),
  rule('board', 'board-32bit-seven', 1, 'Calm readings and little current.', onBattery),
  rule(
    'board',
    'board-32bit-seven',
    -1,
    'It costs more than the others.',
    ({ budget }) => budget === 'little',
  ),
  rule(
    'board',
    'board-wifi-one board-wifi-two-groups board-33-three',
    1,
    'Among the cheapest.',
    ({ budget }) => budget === 'little',
  ),
  // Links
  rule('link', 'link-lamp', 8, 'A lamp is all you ask.', ({ wants }) => wants === 'lamp'),
  rule('link', 'link-lamp', -4, 'Nothing is logged.', ({ wants }) => wants === 'number'),
  rule(
    'link',
    'link-http',
    4,
    'Wi-Fi reaches; each report is acknowledged only after it is stored.',
    ({ wifi }) => wifi === 'good',
  ),
  rule(
    'link',
    'link-mqtt',
    3,
    'Wi-Fi reaches; it fits where MQTT runs already.',
    ({ wifi }) => wifi === 'good',
  ),
  rule(
    'link',
    'link-http',
    2,
    'A board that wakes, reports and sleeps needs no standing connection.',
    ({ wifi }) => wifi === 'weak',
  ),
  rule(
    'link',
    'link-mqtt',
    -1,
    'A standing connection drops again and again where Wi-Fi is weak.',
    ({ wifi }) => wifi === 'weak',
  ),
  rule('link', 'link-http link-mqtt', -8, 'Wi-Fi does not reach.', ({ wifi }) => wifi === 'none'),
  rule('link', 'link-serial', 2, 'A cable to a computer always works at the bench.', () => true),
  rule('link', 'link-serial', -4, 'A computer would have to stand outside all season.', outdoors),
  rule('link', 'link-http', 1, 'Between reports the board sleeps.', onBattery),
  // Power
  rule('power', 'supply-usb', 4, 'USB is there.', ({ power }) => power === 'usb'),
  rule(
    'power',
    'supply-12v',
    4,
    'A socket is there: a certified plug-in supply runs pumps and board.',
    ({ power, water }) => power === 'mains' && (water === 'tank' || water === 'tap'),
  ),
  rule(
    'power',
    'supply-usb',
    3,
    'A socket is there: a USB supply is enough for board and probes.',
    ({ power }) => power === 'mains',
  ),
  rule(
    'power',
    'battery-12v battery-lithium battery-aa',
    -4,
    'A socket or USB is there; a battery is one more thing to look after.',
    ({ power }) => power === 'mains' || power === 'usb',
  ),
  rule(
    'power',
    'solar-panel solar-panel-lithium',
    4,
    'The sun fills the battery again.',
    ({ power }) => power === 'solar',
  ),
  rule(
    'power',
    'battery-12v',
    3,
    'It runs a 12 V pump directly, and bears the cold.',
    (answers) => onBattery(answers) && (answers.water === 'tank' || answers.water === 'tap'),
  ),
  rule(
    'power',
    'battery-lithium',
    2,
    'Small and light, enough for board and probes.',
    (answers) => onBattery(answers) && (answers.water === 'none' || answers.water === 'timer'),
  ),
  rule('power', 'battery-lithium', -2, 'It must not be charged below freezing.', (answers) =>
    outdoors(answers),
  ),
  rule('power', 'battery-aa', 2, 'Bought anywhere, nothing to charge.', ({ power }) => power === 'battery'),
  rule(
    'power',
    'battery-aa',
    -3,
    'A pump empties them in an afternoon.',
    ({ water }) => water === 'tank' || water === 'tap',
  ),
  rule(
    'power',
    'supply-usb supply-12v',
    -8,
    'There is no socket.',
    ({ power }) => power === 'battery' || power === 'solar',
  ),
  rule(
    'power',
    'supply-usb',
    2,
    'The timer feeds the valves; the board and its contacts need 5 V.',
    ({ water }) => water === 'timer',
  ),
  rule('power', 'supply-12v', -4, 'USB gives no 12 V.', ({ power }) => power === 'usb'),
];
