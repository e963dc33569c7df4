/** The keys that do the same wherever one is on the page. */
import { foldModel, place, turnTo } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { redo, undo } from '../state/store.ts';
import { useKeys } from './use-keys.ts';

export function usePageKeys(): void {
  useKeys({
    giveUp: () => {
      place(null);
      return false;
    },
    find: () => useEditor.setState(({ dialog }) => ({ dialog: dialog === 'finder' ? null : 'finder' })),
    keys: () => useEditor.setState({ dialog: 'keys' }),
    turn: () => turnTo(useEditor.getState().board === 'plan' ? 'sheet' : 'plan'),
    fold: foldModel,
    undo,
    redo,
  });
}
