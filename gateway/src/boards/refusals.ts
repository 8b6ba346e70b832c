import type { Heard } from './intake.ts';

/** Why a report was not taken, for the board that sent it and whoever reads along, and the status of HTTP that says the same. */
export function refusalOf(heard: Exclude<Heard, { kind: 'answered' }>): { status: number; error: string } {
  switch (heard.kind) {
    case 'not-its-key':
      return { status: 403, error: 'This key belongs to another board. Nothing was kept.' };
    case 'full':
      return {
        status: 507,
        error: 'The gateway has no room left. Nothing was kept: keep it and send it again later.',
      };
    case 'unreadable':
      switch (heard.issue.kind) {
        case 'too-long':
          return { status: 413, error: 'A report may have 65536 bytes. Send fewer readings at a time.' };
        case 'not-json':
          return { status: 400, error: 'The report is no JSON. Nothing was kept.' };
        case 'field':
          return {
            status: 400,
            error: `${heard.issue.field}: ${heard.issue.message}. Nothing was kept.`,
          };
        case 'not-understood':
          return {
            status: 400,
            error: `The pack says that "${heard.issue.label}" must be understood, and it is not. Nothing was kept.`,
          };
      }
  }
}
