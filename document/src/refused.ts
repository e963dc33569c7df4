/** Refusals: what is wrong with a value from outside, and where. */

/** One fault: the path to the offending value, such as `openings/o3/along/distance`, and the reason. */
export interface Fault {
  path: string;
  reason: string;
}

/** Raised where a document, a file or a change set is refused. Nothing has been changed when it is raised. */
export class Refused extends Error {
  constructor(
    message: string,
    /** The first of them, at most `mostFaults`. */
    readonly faults: readonly Fault[],
    /** How many there are in all. */
    readonly count = faults.length,
  ) {
    super(message);
    this.name = 'Refused';
  }
}
