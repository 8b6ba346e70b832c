/** Ranks what could be taken for each topic, with the reasons on both sides and the answers that would change the order. */
import { answerText, QUESTION_IDS, QUESTIONS, type Answers } from './interview.ts';
import { CANDIDATES, RULES, TOPICS, type Topic } from './rules.ts';

export type Candidate = {
  /** A catalogue entry's id, two of them with a blank between, or a link's id. */
  readonly id: string;
  readonly points: number;
  readonly speaksFor: readonly string[];
  readonly speaksAgainst: readonly string[];
};
export type Turn = {
  /** "if probes were moved about instead of buried for a season" as its parts. */
  readonly question: keyof Answers;
  /** Null while the question has no answer. */
  readonly now: string | null;
  readonly instead: string;
  readonly winner: string;
};
export type Suggestion = {
  readonly topic: Topic;
  /** Best first. */
  readonly ranked: readonly Candidate[];
  readonly turns: readonly Turn[];
};

/** A rule for a part speaks for every candidate that holds the part. */
const applies = (candidates: readonly string[], id: string) =>
  candidates.some((one) => one === id || id.split(' ').includes(one));

/** Pieces that are there already, by entry. */
export type Drawer = Readonly<Record<string, number>>;

/** With so many pieces of one entry in it; with fewer than one it is out of it. */
export function withPieces(drawer: Drawer, key: string, count: number): Record<string, number> {
  const rest = Object.fromEntries(Object.entries(drawer).filter(([other]) => other !== key));
  return count < 1 ? rest : { ...rest, [key]: Math.round(count) };
}

/** Worth a clear reason: nothing to buy, nothing to wait for. */
const HAVE_POINTS = 2;
const HAVE_SAYS = 'It lies in your drawer.';

function rank(topic: Topic, answers: Answers, probes: number, drawer: Drawer): Candidate[] {
  const fired = RULES.filter((rule) => rule.topic === topic && rule.when(answers, probes));
  const isThere = (id: string) =>
    id.split(' ').every((one) => (drawer[one] ?? 0) >= (topic === 'probe' ? probes : 1));
  return CANDIDATES[topic]
    .map((id): Candidate => {
      const own = fired.filter((rule) => applies(rule.candidates, id));
      return {
        id,
        points: own.reduce((sum, rule) => sum + rule.points, 0) + (isThere(id) ? HAVE_POINTS : 0),
        speaksFor: [
          ...(isThere(id) ? [HAVE_SAYS] : []),
          ...own.filter((rule) => rule.points > 0).map((rule) => rule.says),
        ],
        speaksAgainst: own.filter((rule) => rule.points < 0).map((rule) => rule.says),
      };
    })
    .sort((one, other) => other.points - one.points);
}

/**
 * @param probes how many probes the garden has or will have, ≥ 1
 * @param drawer what is there already; of a probe it counts when there are enough of them
 * Turns are found by trying: each answer is changed alone to each other one, and the turn is kept when another candidate leads.
 */
export function suggest(answers: Answers, probes: number, drawer: Drawer = {}): Suggestion[] {
  return TOPICS.map((topic) => {
    const ranked = rank(topic, answers, probes, drawer);
    const winner = ranked[0]?.id ?? '';
    const tries = alternatives(answers, probes).flatMap(({ question, changed, count }) => {
      const first = rank(topic, changed, count, drawer)[0]?.id ?? '';
      return first === winner ? [] : [{ question, changed, first }];
    });
    const turns = tries.map(({ question, changed, first }): Turn => ({
      question,
      now:
        question === 'probes'
          ? answerText('probes', probes)
          : answers[question] === null
            ? null
            : answerText(question, answers[question]),
      instead: answerText(question, changed[question]),
      winner: first,
    }));
    return { topic, ranked, turns: onePerAnswer(turns) };
  });
}

/** Other numbers worth trying: a lone probe, a handful, many; a short cable, a long one. */
const PROBE_COUNTS = [1, 3, 5, 8];
const CABLES_M = [1, 4, 15];

function alternatives(
  answers: Answers,
  probes: number,
): { question: keyof Answers; changed: Answers; count: number }[] {
  return [
    ...QUESTION_IDS.flatMap((question) =>
      Object.keys(QUESTIONS[question].answers)
        .filter((value) => value !== answers[question])
        .map((value) => ({ question, changed: { ...answers, [question]: value }, count: probes })),
    ),
    ...CABLES_M.filter((cableM) => cableM !== answers.cableM).map((cableM) => ({
      question: 'cableM' as const,
      changed: { ...answers, cableM },
      count: probes,
    })),
    ...PROBE_COUNTS.filter((count) => count !== probes).map((count) => ({
      question: 'probes' as const,
      changed: { ...answers, probes: count },
      count,
    })),
  ];
}

/** Several answers to one question that lead to the same winner are told once. */
const onePerAnswer = (turns: readonly Turn[]): Turn[] =>
  turns.filter(
    (turn, at) =>
      turns.findIndex((one) => one.question === turn.question && one.winner === turn.winner) === at,
  );
