/** The register of elements: searched and filtered, by groups or floors; each shown or hidden, locked, renamed. */
import { IconButton, Menu, Portal } from '@chakra-ui/react';
import {
  facesOf,
  isManyFaced,
  kinds,
  kindNames,
  type Element,
  type KindName,
  type ProjectDocument,
} from '@yard-arch/document';
import {
  addElement,
  changeElement,
  duplicateElement,
  groupsOf,
  removeElement,
  setGroup,
  setLocked,
} from '@yard-arch/edit';
import { Eye, EyeOff, Lock, LockOpen, MoreHorizontal, Palette, Plus } from 'lucide-react';
import { useMemo, useState, type ReactNode } from 'react';
import { countsOf, listed, type Count, type Order, type Wanted } from './listing.ts';
import { MenuAt, type Spot } from '../common/MenuAt.tsx';
import { choose, chooseElement, hide, turnOver, turnTo } from '../state/choice.ts';
import { useEditor, useFace } from '../state/state.ts';
import { commit } from '../state/store.ts';

const remembered = (key: string, otherwise: string): string =>
  localStorage.getItem(`yard-arch-register-${key}`) ?? otherwise;

export function Register({ document }: { document: ProjectDocument }) {
  const statuses = useEditor((state) => state.statuses);
  const chosen = useEditor((state) => state.chosen);
  const hidden = useEditor((state) => state.hidden);
  const [search, setSearch] = useState('');
  const [order, setOrder] = useState(remembered('order', 'all') as Order);
  const [wanted, setWanted] = useState<Wanted>('all');
  const counts = useMemo(() => countsOf(document, statuses), [document, statuses]);
  const parts = listed(document, { order, wanted, search, hidden }, counts);
  const many = Object.keys(document.elements).length > 3;
  return (
    <nav className="register" aria-label="Register of elements">
      <h2>Elements</h2>
      {many && (
        <div className="search">
          <input
            type="search"
            placeholder="Search"
            aria-label="Search elements and openings"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <div>
            <select
              aria-label="List"
              value={order}
              onChange={(event) => {
                setOrder(event.target.value as Order);
                localStorage.setItem('yard-arch-register-order', event.target.value);
              }}
            >
              <option value="all">one list</option>
              <option value="groups">by group</option>
              <option value="floors">by floor</option>
            </select>
            <select aria-label="Show" value={wanted} onChange={(event) => setWanted(event.target.value as Wanted)}>
              <option value="all">all</option>
              <option value="openings">with openings</option>
              <option value="faults">with faults</option>
              <option value="hidden">hidden</option>
            </select>
          </div>
        </div>
      )}
      {hidden.size > 0 && (
        <button className="unhide" onClick={() => hide(new Set())}>
          {hidden.size} hidden · show all
        </button>
      )}
      {parts.every(({ elements }) => elements.length === 0) && many && <p className="none">No wall is like that.</p>}
      {parts.map(({ title, elements }) => (
        <Part key={title ?? ''} title={title} elements={elements} document={document} counts={counts} />
      ))}
      <Menu.Root
        onSelect={({ value }) => {
          if (value === 'sheets') return useEditor.setState({ dialog: 'sheets' });
          const { changeSet, id } = addElement(document, value as KindName);
          if (commit(changeSet)) chooseElement(id);
        }}
      >
        <Menu.Trigger asChild>
          <button className="add">
            <Plus size={15} /> Add an element…
          </button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="paper">
              {kindNames.map((kind) => (
                <Menu.Item key={kind} value={kind} className="kind">
                  <svg viewBox="0 0 48 32" width="48" height="32" aria-hidden="true">
                    <path d={kinds[kind].drawing} />
                  </svg>
                  {kinds[kind].title}
                  <span>{kinds[kind].about}</span>
                </Menu.Item>
              ))}
              <Menu.Separator />
              <Menu.Item value="sheets">Single sheets from an OBJ or GLB file…</Menu.Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <button className="add" aria-current={chosen.kind === 'project'} onClick={() => choose({ kind: 'project' })}>
        <Palette size={15} /> Materials
      </button>
    </nav>
  );
}

function Part({
  title,
  elements,
  document,
  counts,
}: {
  title: string | null;
  elements: readonly Element[];
  document: ProjectDocument;
  counts: ReadonlyMap<string, Count>;
}) {
  const hidden = useEditor((state) => state.hidden);
  const [open, setOpen] = useState(true);
  const list = (
    <ul>
      {elements.map((element) => (
        <Entry key={element.id} element={element} document={document} count={counts.get(element.id)} />
      ))}
    </ul>
  );
  if (title === null) return list;
  const all = elements.every(({ id }) => hidden.has(id));
  return (
    <section className="part" aria-label={title}>
      <header>
        <button aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? '▾' : '▸'} {title} <small>{elements.length}</small>
        </button>
        <button
          aria-label={all ? `Show ${title}` : `Hide ${title}`}
          title={all ? 'Show all of these' : 'Hide all of these'}
          onClick={() => {
            const next = new Set(hidden);
            for (const { id } of elements)
              if (all) next.delete(id);
              else next.add(id);
            hide(next);
          }}
        >
          {all ? <EyeOff size={14} /> : <Eye size={14} />}
        </button>
      </header>
      {open && list}
    </section>
  );
}

function Entry({
  element,
  document,
  count,
}: {
  element: Element;
  document: ProjectDocument;
  count: Count | undefined;
}) {
  const current = useEditor((state) => state.element === element.id);
  const hidden = useEditor((state) => state.hidden);
  const [renaming, setRenaming] = useState(false);
  const told = [count?.open ? `${count.open} cut` : '', count?.blocked ? `${count.blocked} blocked up` : '']
    .filter(Boolean)
    .join(' · ');
  const away = hidden.has(element.id);
  const show = (): void => {
    const next = new Set(hidden);
    if (!next.delete(element.id)) next.add(element.id);
    hide(next);
  };
  if (renaming)
    return (
      <li>
        <Renaming
          name={element.name}
          onDone={(name) => {
            setRenaming(false);
            if (name && name !== element.name) commit(changeElement(element, { name }, 'rename'));
          }}
        />
      </li>
    );
  return (
    <li className={`entry${away ? ' away' : ''}`}>
      <EntryMenu element={element} document={document} away={away} onShow={show} onRename={() => setRenaming(true)}>
        <button
          className={current ? 'chosen' : ''}
          aria-current={current}
          onClick={() => {
            chooseElement(element.id);
            if (isManyFaced(element)) turnOver(element.id, 'outer');
            choose({ kind: 'wall' });
            // Among the openings of all walls its own sheet is not to be seen.
            if (useEditor.getState().board === 'table') turnTo('sheet');
          }}
          onDoubleClick={() => setRenaming(true)}
          onKeyDown={(event) => {
            if (event.key === 'F2') setRenaming(true);
          }}
        >
          <b>
            {element.name}
            {element.locked && <Lock size={11} aria-label="locked" />}
            {away && <EyeOff size={11} aria-label="hidden" />}
          </b>
          <span>{told || (count?.failed ? '' : 'no openings')}</span>
          {count && count.failed > 0 && <span className="bad">{count.failed} not cut</span>}
          {count && count.misfit > 0 && <span className="bad">{count.misfit} beyond its edge</span>}
        </button>
      </EntryMenu>
      {isManyFaced(element) && <FaceEntries element={element} document={document} />}
    </li>
  );
}

/** The most faces that are listed below their element. */
const mostFaces = 16;

/** The faces of an element that has many, each with its sheet. */
function FaceEntries({ element, document }: { element: Element; document: ProjectDocument }) {
  const current = useEditor((state) => state.element === element.id);
  const shown = useFace(element.id);
  const faces = facesOf(element).slice(1);
  if (!current) return null;
  const count = (face: string): number =>
    Object.values(document.openings).filter((one) => one.element === element.id && one.face === face).length;
  return (
    <ul className="faces">
      {faces.slice(0, mostFaces).map(({ name, label }) => {
        const openings = count(name);
        return (
          <li key={name}>
            <button
              className={current && shown === name ? 'chosen' : ''}
              aria-current={current && shown === name}
              onClick={() => {
                chooseElement(element.id);
                turnOver(element.id, name);
                choose({ kind: 'wall' });
                if (useEditor.getState().board !== 'sheet') turnTo('sheet');
              }}
            >
              {label}
              {openings > 0 && <small> · {openings}</small>}
            </button>
          </li>
        );
      })}
      {faces.length > mostFaces && <li className="more-faces">and {faces.length - mostFaces} more, on its sheet</li>}
    </ul>
  );
}

function Renaming({ name, onDone }: { name: string; onDone: (name: string | null) => void }) {
  // With nothing typed nothing is written, whatever it is called by now.
  const [typed, setTyped] = useState<string | null>(null);
  const done = (): void => onDone(typed === null ? null : typed.trim());
  return (
    <input
      className="renaming"
      autoFocus
      aria-label={`New name of ${name}`}
      value={typed ?? name}
      maxLength={120}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') done();
        if (event.key === 'Escape') onDone(null);
      }}
    />
  );
}

interface EntryMenuProps {
  element: Element;
  document: ProjectDocument;
  away: boolean;
  onShow: () => void;
  onRename: () => void;
  /** The entry, on which it opens as a context menu too. */
  children: ReactNode;
}

/** What can be done with an element from the register. */
function EntryMenu({ element, document, away, onShow, onRename, children }: EntryMenuProps) {
  const [at, setAt] = useState<Spot | null>(null);
  const groups = groupsOf(document);
  const act: Record<string, () => void> = {
    rename: onRename,
    show: onShow,
    alone: () => hide(new Set(Object.keys(document.elements).filter((id) => id !== element.id))),
    lock: () => commit(setLocked([element], !element.locked)),
    duplicate: () => {
      const made = duplicateElement(document, element);
      if (commit(made.changeSet)) chooseElement(made.id);
    },
    'new group': () => {
      let n = groups.length + 1;
      while (groups.includes(`Group ${n}`)) n++;
      commit(setGroup([element], `Group ${n}`));
    },
    'no group': () => commit(setGroup([element], null)),
    remove: () => commit(removeElement(document, element)),
  };
  const onSelect = (value: string): void => {
    if (value.startsWith('into ')) commit(setGroup([element], value.slice(5)));
    else act[value]?.();
  };
  const items = <EntryItems element={element} groups={groups} away={away} />;
  return (
    <>
      <div
        onContextMenu={(event) => {
          event.preventDefault();
          setAt({ x: event.clientX, y: event.clientY });
        }}
      >
        {children}
      </div>
      <Menu.Root lazyMount onSelect={({ value }) => onSelect(value)}>
        <Menu.Trigger asChild>
          <IconButton className="more" size="2xs" variant="ghost" aria-label={`What to do with ${element.name}`}>
            <MoreHorizontal size={15} />
          </IconButton>
        </Menu.Trigger>
        {items}
      </Menu.Root>
      <MenuAt at={at} onClose={() => setAt(null)} onSelect={onSelect}>
        {items}
      </MenuAt>
    </>
  );
}

function EntryItems({ element, groups, away }: { element: Element; groups: readonly string[]; away: boolean }) {
  return (
    <Portal>
      <Menu.Positioner>
        <Menu.Content bg="paper">
          <Menu.Item value="rename">Rename (F2)</Menu.Item>
          <Menu.Item value="show">{away ? 'Show' : 'Hide'}</Menu.Item>
          <Menu.Item value="alone">Show alone</Menu.Item>
          <Menu.Item value="lock">
            {element.locked ? <LockOpen size={13} /> : <Lock size={13} />} {element.locked ? 'Unlock' : 'Lock'}
          </Menu.Item>
          <Menu.Item value="duplicate">Duplicate with everything on it</Menu.Item>
          <Menu.Separator />
          {groups
            .filter((group) => group !== element.group)
            .map((group) => (
              <Menu.Item key={group} value={`into ${group}`}>
                Into {group}
              </Menu.Item>
            ))}
          <Menu.Item value="new group">Into a new group</Menu.Item>
          {element.group && <Menu.Item value="no group">Out of {element.group}</Menu.Item>}
          <Menu.Separator />
          <Menu.Item value="remove" color="brick">
            Remove
          </Menu.Item>
        </Menu.Content>
      </Menu.Positioner>
    </Portal>
  );
}
