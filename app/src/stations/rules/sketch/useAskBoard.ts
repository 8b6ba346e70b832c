import { useLiveTools } from '../../../links/liveContext.ts';

const LOOK_MS = 50;

/** Types lines at a board's console. */
export function useAskBoard(boardId: string) {
  const { session } = useLiveTools();
  const board = () => session.getSnapshot().source?.boardAt(boardId) ?? null;
  /** Types one, and waits for its answer. @returns why it was not taken; null: it was */
  const ask = async (text: string): Promise<string | null> => {
    const before = board();
    if (!before) return 'the board is gone';
    const count = before.program.answer?.count ?? 0;
    before.type(text);
    for (let waitedMs = 0; waitedMs < before.answersWithinMs; waitedMs += LOOK_MS) {
      await new Promise((done) => setTimeout(done, LOOK_MS));
      const answer = board()?.program.answer;
      if (answer && answer.count > count) return answer.said.kind === 'refused' ? answer.said.why : null;
    }
    return 'no answer came';
  };
  return { board, ask };
}
