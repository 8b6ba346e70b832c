/** The few questions that decide what to buy. Every answer may be missing; what it decides is then left open. */
import { z } from '../quantity/schema.ts';

export const QUESTIONS = {
  place: {
    asks: 'Where do the plants stand?',
    short: 'place',
    answers: { indoors: 'indoors', balcony: 'balcony or roof', bed: 'bed', lawn: 'lawn' },
  },
  stays: {
    asks: 'Does a probe stay in the ground?',
    short: 'probes',
    answers: { buried: 'buried for a season', moved: 'moved about' },
  },
  wants: {
    asks: 'A number, or only a lamp?',
    short: 'wanted',
    answers: { number: 'a number to log', lamp: 'a lamp will do' },
  },
  power: {
    asks: 'What power is there?',
    short: 'power',
    answers: { mains: 'a socket', usb: 'USB', battery: 'battery', solar: 'battery and sun' },
  },
  wifi: {
    asks: 'Does Wi-Fi reach?',
    short: 'Wi-Fi',
    answers: { good: 'well', weak: 'weakly', none: 'not at all' },
  },
  water: {
    asks: 'Where does the water come from?',
    short: 'water',
    answers: {
      none: 'I water by hand',
      tank: 'a tank',
      tap: 'a drinking-water pipe',
      timer: 'an irrigation timer that is there',
    },
  },
  budget: {
    asks: 'What may it cost?',
    short: 'budget',
    answers: { little: 'as little as can be', middle: 'something in between', ample: 'what it takes' },
  },
} as const;

export type QuestionId = keyof typeof QUESTIONS;
export const QUESTION_IDS = Object.keys(QUESTIONS) as QuestionId[];

const oneOf = <Keys extends string>(of: Readonly<Record<Keys, string>>) =>
  z.enum(Object.keys(of) as [Keys, ...Keys[]]).nullable();

export const answersSchema = z.strictObject({
  place: oneOf(QUESTIONS.place.answers),
  stays: oneOf(QUESTIONS.stays.answers),
  wants: oneOf(QUESTIONS.wants.answers),
  power: oneOf(QUESTIONS.power.answers),
  wifi: oneOf(QUESTIONS.wifi.answers),
  water: oneOf(QUESTIONS.water.answers),
  budget: oneOf(QUESTIONS.budget.answers),
  /** Number of probes; null takes the garden's own. */
  probes: z.int().min(1).max(60).nullable(),
  /** Longest cable from board to probe, m. */
  cableM: z.number().min(0).max(1000).nullable(),
  /** Zones of an irrigation timer that a board of ours is to permit. */
  zones: z.int().min(1).max(6).nullable(),
});
export type Answers = z.infer<typeof answersSchema>;

export const NO_ANSWERS: Answers = {
  place: null,
  stays: null,
  wants: null,
  power: null,
  wifi: null,
  water: null,
  budget: null,
  probes: null,
  cableM: null,
  zones: null,
};

/** How an answer reads: "buried for a season", "12 m of cable". */
export function answerText(id: keyof Answers, value: Answers[keyof Answers]): string {
  if (value === null) return 'not answered';
  if (id === 'probes') return `${value} ${value === 1 ? 'probe' : 'probes'}`;
  if (id === 'cableM') return `${value} m of cable`;
  if (id === 'zones') return `${value} ${value === 1 ? 'zone' : 'zones'}`;
  const answers: Readonly<Record<string, string>> = QUESTIONS[id].answers;
  return answers[value] ?? String(value);
}
