/** The list of the book: patterns with their pictures, found by name or tag, favourites first. */
import type { Pattern, ProjectDocument } from '@yard-arch/document';
import { addPattern, patternOf, uses } from '@yard-arch/edit';
import { ArrowLeft, BookOpen, Plus, Star } from 'lucide-react';
import { useState } from 'react';
import { PatternFigure } from '../boards/PatternFigure.tsx';
import { useFavourites } from '../patterns/favourites.ts';
import { matches } from '../patterns/matches.ts';
import { ShapeChoice } from '../patterns/ShapeChoice.tsx';
import { choose, turnTo } from '../state/choice.ts';
import { useEditor } from '../state/state.ts';
import { commit } from '../state/store.ts';
import { TakeIn } from './TakeIn.tsx';

export function BookList({ document, chosen }: { document: ProjectDocument; chosen: string | null }) {
  const [text, setText] = useState('');
  const [tag, setTag] = useState<string | null>(null);
  const [taking, setTaking] = useState(false);
  const [favourites, turn] = useFavourites(useEditor((state) => state.project) ?? '');
  const patterns = Object.values(document.patterns);
  const tags = [...new Set(patterns.flatMap(({ tags = [] }) => tags))].sort();
  const found = patterns
    .filter((pattern) => matches(pattern, text) && (tag === null || pattern.tags?.includes(tag)))
    .sort((a, b) => Number(favourites.has(b.id)) - Number(favourites.has(a.id)));
  return (
    <nav className="book-list" aria-label="Pattern book">
      <header>
        <h2>Pattern book</h2>
        <button className="link" onClick={() => turnTo('sheet')}>
          <ArrowLeft size={13} /> setting out
        </button>
      </header>
      <input
        type="search"
        placeholder="Search"
        aria-label="Search patterns"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {tags.length > 0 && <Tags tags={tags} chosen={tag} onChoose={setTag} />}
      <ul>
        {found.map((pattern) => (
          <Entry
            key={pattern.id}
            document={document}
            pattern={pattern}
            chosen={pattern.id === chosen}
            favourite={favourites.has(pattern.id)}
            onTurn={() => turn(pattern.id)}
          />
        ))}
        {found.length === 0 && (
          <li className="none">{patterns.length === 0 ? 'No patterns yet.' : 'None of that name or tag.'}</li>
        )}
      </ul>
      <NewPattern document={document} />
      <button className="new" onClick={() => setTaking(true)}>
        <BookOpen size={15} /> Take one in
      </button>
      <TakeIn document={document} open={taking} onClose={() => setTaking(false)} />
    </nav>
  );
}

interface TagsProps {
  tags: readonly string[];
  chosen: string | null;
  onChoose: (tag: string | null) => void;
}

/** Of which tag patterns are listed; a second click lists all. */
function Tags({ tags, chosen, onChoose }: TagsProps) {
  return (
    <div className="tags" role="group" aria-label="Tags">
      {tags.map((tag) => (
        <button key={tag} aria-pressed={chosen === tag} onClick={() => onChoose(chosen === tag ? null : tag)}>
          {tag}
        </button>
      ))}
    </div>
  );
}

interface EntryProps {
  document: ProjectDocument;
  pattern: Pattern;
  chosen: boolean;
  favourite: boolean;
  onTurn: () => void;
}

/** A pattern in the list. */
function Entry({ document, pattern, chosen, favourite, onTurn }: EntryProps) {
  return (
    <li className={chosen ? 'chosen' : undefined}>
      <button className="pattern" aria-current={chosen} onClick={() => choose({ kind: 'pattern', id: pattern.id })}>
        <PatternFigure
          pattern={pattern}
          dimensions={Object.values(pattern.sizes)[0]!.dimensions}
          units={document.units}
          width={128}
          height={78}
          most={34}
          materials={document.materials}
        />
        <b>{pattern.name}</b>
        <span>{placed(uses(document, pattern.id))}</span>
      </button>
      <button
        className="star"
        aria-pressed={favourite}
        aria-label={`${pattern.name} is a favourite`}
        title="Favourites come first"
        onClick={onTurn}
      >
        <Star size={13} />
      </button>
    </li>
  );
}

/** Makes a pattern: of a profile that is chosen, or drawn. */
function NewPattern({ document }: { document: ProjectDocument }) {
  return (
    <ShapeChoice
      units={document.units}
      onChosen={(shape) => {
        const { changeSet, id } = addPattern(document, shape);
        if (commit(changeSet)) choose({ kind: 'pattern', id });
      }}
      onDrawn={(drawn, name) => {
        const { changeSet, id } = patternOf(document, drawn, name);
        if (!commit(changeSet)) return false;
        choose({ kind: 'pattern', id });
        return true;
      }}
    >
      <button className="new">
        <Plus size={15} /> New pattern
      </button>
    </ShapeChoice>
  );
}

const placed = (count: number): string => (count === 0 ? 'not placed' : `${count} placed`);
