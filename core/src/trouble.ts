/** A failure of the program's own, which no check has foreseen, as it is told. */
import type { Fault } from './finding.ts';

export interface Trouble extends Fault {
  /** What was raised, for whoever mends the program. */
  trouble: Error;
}

export function troubleOf(what: string, raised: unknown): Trouble {
  const trouble = raised instanceof Error ? raised : new Error(String(raised));
  return {
    code: 'failed',
    reason: `${what}, for no reason that is known (${trouble.message || trouble.name})`,
    mend: 'Undo what was done to it last, or give it other dimensions. The project file would help to find the fault.',
    trouble,
  };
}
