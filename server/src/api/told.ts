/** Work as the API tells of it. */
import type { LeftOut } from '@yard-arch/core/format';
import type { Job } from '../jobs/jobs.ts';
import { type Problem } from '../problem.ts';

/** A problem as it is kept. */
export const problemOf = (text: string | null | undefined): Problem | null =>
  text ? (JSON.parse(text) as Problem) : null;

/** What is not in a job's file. */
export const leftOutOf = ({ leftOut }: { leftOut?: string | null | undefined }): LeftOut[] =>
  leftOut ? (JSON.parse(leftOut) as LeftOut[]) : [];

/** Work, and how far it is. */
export function told(job: Job) {
  const { id, project, revision, kind, state, progress, stage, problem, size } = job;
  return {
    ...{ id, project, revision, kind, state, progress, stage },
    problem: problemOf(problem),
    leftOut: leftOutOf(job),
    size: size ?? null,
  };
}
