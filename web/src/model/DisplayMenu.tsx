/** Tools of the model: where to look from, how it is shown, a plane through the building, and a picture of the view. */
import { Button, Menu, Portal } from '@chakra-ui/react';
import { formatLength, type Units } from '@yard-arch/document';
import type * as THREE from 'three';
import { useDisplay, type Display, type Fill, type Section, type Show } from './display.ts';

const shows: { value: Show; label: string }[] = [
  { value: 'edged', label: 'Materials and edges' },
  { value: 'plain', label: 'Materials' },
  { value: 'clay', label: 'Clay' },
  { value: 'see-through', label: 'See-through' },
  { value: 'sides', label: 'Outsides and insides' },
];

const fills: { value: Fill; label: string }[] = [
  { value: 'full', label: 'All that is in and about openings' },
  { value: 'plain', label: 'Frames and glass alone' },
  { value: 'blocks', label: 'Blocks in their places' },
  { value: 'none', label: 'Openings left empty' },
];

export interface ModelTools {
  whole: () => void;
  chosen: () => void;
  outer: (() => void) | null;
  inner: (() => void) | null;
  start: (() => void) | null;
  end: (() => void) | null;
  above: () => void;
  copy: () => void;
}

/** What is shown or not, besides. */
const switches: {
  value: string;
  label: string;
  isOn: (display: Display) => boolean;
  set: (on: boolean, bounds: THREE.Box3) => Partial<Display>;
}[] = [
  {
    value: 'cutters',
    label: 'What is taken out',
    isOn: ({ cutters }) => cutters,
    set: (on) => ({ cutters: on }),
  },
  {
    value: 'parallel',
    label: 'Parallel, not perspective',
    isOn: ({ parallel }) => parallel,
    set: (on) => ({ parallel: on }),
  },
  {
    value: 'dark',
    label: 'Dark backdrop',
    isOn: ({ backdrop }) => backdrop === 'dark',
    set: (on) => ({ backdrop: on ? 'dark' : 'light' }),
  },
  {
    value: 'finer',
    label: 'Drawn finer at rest, with contact shade',
    isOn: ({ finer }) => finer,
    set: (on) => ({ finer: on }),
  },
  {
    value: 'section',
    label: 'Cut through by a plane',
    isOn: ({ section }) => section !== null,
    set: (on, bounds) => ({ section: on ? { across: 'y', at: middleOf(bounds, 'y'), other: false } : null }),
  },
];

const middleOf = (bounds: THREE.Box3, across: Section['across']): number =>
  bounds.isEmpty() ? 0 : (bounds.min[across] + bounds.max[across]) / 2;

export function DisplayMenu({ tools, bounds }: { tools: ModelTools; bounds: THREE.Box3 }) {
  return (
    <div className="tools">
      <button onClick={tools.whole} title="Show the whole model">
        Whole
      </button>
      <button onClick={tools.chosen} title="Go to what is chosen">
        Chosen
      </button>
      <button disabled={!tools.outer} onClick={() => tools.outer?.()} title="Look square at the chosen wall">
        Face on
      </button>
      <Menu.Root
        closeOnSelect={false}
        onSelect={({ value }) => {
          if (value === 'inner' || value === 'start' || value === 'end') tools[value]?.();
          if (value === 'above' || value === 'copy') tools[value]();
        }}
      >
        <Menu.Trigger asChild>
          <Button className="look" size="2xs" variant="plain" aria-label="How the model is shown">
            Look ▴
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content className="looks" bg="paper" maxH="calc(100vh - 16px)">
              <Choices tools={tools} bounds={bounds} />
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    </div>
  );
}

function Choices({ tools, bounds }: { tools: ModelTools; bounds: THREE.Box3 }) {
  const display = useDisplay();
  return (
    <>
      <div>
        <OneOf value={display.show} of={shows} onChange={(show) => useDisplay.setState({ show })} />
        <Menu.Separator />
        <OneOf value={display.fill} of={fills} onChange={(fill) => useDisplay.setState({ fill })} />
      </div>
      <div>
        {switches.map(({ value, label, isOn, set }) => (
          <Menu.CheckboxItem
            key={value}
            value={value}
            checked={isOn(display)}
            onCheckedChange={(checked) => useDisplay.setState(set(checked, bounds))}
          >
            <Menu.ItemIndicator />
            {label}
          </Menu.CheckboxItem>
        ))}
        <Menu.Separator />
        <Menu.Item value="inner" disabled={!tools.inner}>
          Inner face on
        </Menu.Item>
        <Menu.Item value="start" disabled={!tools.start}>
          Start edge on
        </Menu.Item>
        <Menu.Item value="end" disabled={!tools.end}>
          End edge on
        </Menu.Item>
        <Menu.Item value="above">From above</Menu.Item>
        <Menu.Item value="copy">Copy the view as PNG</Menu.Item>
      </div>
    </>
  );
}

/** Choices of which one holds. */
function OneOf<T extends string>({
  value,
  of,
  onChange,
}: {
  value: T;
  of: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}) {
  return (
    <Menu.RadioItemGroup value={value} onValueChange={(chosen) => onChange(chosen.value as T)}>
      {of.map(({ value, label }) => (
        <Menu.RadioItem key={value} value={value}>
          <Menu.ItemIndicator />
          {label}
        </Menu.RadioItem>
      ))}
    </Menu.RadioItemGroup>
  );
}

/** Where the plane through the building stands. */
export function SectionBar({ bounds, units }: { bounds: THREE.Box3; units: Units }) {
  const section = useDisplay((state) => state.section);
  if (!section || bounds.isEmpty()) return null;
  const set = (over: Partial<Section>): void => useDisplay.setState({ section: { ...section, ...over } });
  const [least, most] = [bounds.min[section.across], bounds.max[section.across]];
  return (
    <div className="section-bar" role="group" aria-label="Plane through the building">
      <select
        aria-label="Plane"
        value={section.across}
        onChange={(event) => {
          const across = event.target.value as Section['across'];
          set({ across, at: (bounds.min[across] + bounds.max[across]) / 2 });
        }}
      >
        <option value="x">across x</option>
        <option value="y">across y</option>
        <option value="z">level</option>
      </select>
      <input
        type="range"
        aria-label="Where the plane stands"
        min={least}
        max={most}
        step={0.05}
        value={section.at}
        onChange={(event) => set({ at: Number(event.target.value) })}
      />
      <output>{formatLength(Math.round(section.at * 100) / 100, units)}</output>
      <button onClick={() => set({ other: !section.other })} title="Take the other half away">
        turn
      </button>
    </div>
  );
}
