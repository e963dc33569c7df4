/** How a pattern stands where its element is not flat and upright: on curves, slopes and floors, in barrels. */
import type { Pattern } from '@yard-arch/document';
import { changePattern } from '@yard-arch/edit';
import { Choice, Tick } from '../fields/Fields.tsx';
import { commit } from '../state/store.ts';

export function PatternWays({ pattern }: { pattern: Pattern }) {
  return (
    <>
      <Choice
        label="On curves"
        value={pattern.jambs ?? 'parallel'}
        options={[
          { value: 'parallel', label: 'parallel jambs' },
          { value: 'radial', label: 'radial jambs' },
        ]}
        onChange={(jambs) =>
          commit(changePattern(pattern, { jambs: jambs as 'parallel' | 'radial' }, 'turn the jambs of'))
        }
      />
      <Choice
        label="On slopes"
        value={pattern.onSlope ?? 'level'}
        options={[
          { value: 'level', label: 'head level, sill plumb' },
          { value: 'plumb', label: 'all plumb' },
          { value: 'square', label: 'square to the slope' },
        ]}
        onChange={(onSlope) =>
          commit(changePattern(pattern, { onSlope: onSlope as 'level' | 'plumb' | 'square' }, 'slope the reveal of'))
        }
      />
      <Choice
        label="In barrels"
        value={pattern.inBarrels ?? 'radial'}
        options={[
          { value: 'radial', label: 'radial' },
          { value: 'level', label: 'level, upright in the flank' },
        ]}
        onChange={(way) =>
          commit(changePattern(pattern, { inBarrels: way === 'level' ? way : undefined }, 'turn in barrels'))
        }
      />
      <Tick
        label="On floor"
        value={pattern.onFloor ?? false}
        onChange={(onFloor) =>
          commit(
            changePattern(
              pattern,
              { onFloor: onFloor || undefined },
              onFloor ? 'stand on the floor' : 'take off the floor',
            ),
          )
        }
      />
    </>
  );
}
