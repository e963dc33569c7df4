/** What became of an opening, in a word and a colour. */
import type { Outcome } from '@yard-arch/core';

const words = {
  cut: 'cut through',
  notched: 'notched',
  niche: 'niche',
  boss: 'boss',
  imprint: 'imprint',
  'blocked up': 'blocked up',
  'not cut': 'not cut',
} as const;
const classes = {
  cut: 'good',
  notched: 'good',
  niche: 'good',
  boss: 'good',
  imprint: 'good',
  'blocked up': 'idle',
  'not cut': 'bad',
} as const;

export function StatusLine({ status }: { status: Outcome | undefined }) {
  if (!status) return <span className="state idle">being cut…</span>;
  return (
    <span className={`state ${classes[status.state]}`} data-testid="state">
      {words[status.state]}
    </span>
  );
}
