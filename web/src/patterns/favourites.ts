/** The patterns that somebody likes best, kept in the browser. */
import { useState } from 'react';

const kept = 'yard-arch-favourites';

/** Patterns that this browser's user likes best, by project and pattern. */
export function useFavourites(project: string): [ReadonlySet<string>, (id: string) => void] {
  const [all, setAll] = useState<readonly string[]>(() => {
    try {
      return JSON.parse(localStorage.getItem(kept) ?? '[]') as string[];
    } catch {
      return [];
    }
  });
  const key = (id: string): string => `${project} ${id}`;
  const turn = (id: string): void => {
    const next = all.includes(key(id)) ? all.filter((one) => one !== key(id)) : [...all, key(id)];
    setAll(next);
    localStorage.setItem(kept, JSON.stringify(next));
  };
  return [
    new Set(all.filter((one) => one.startsWith(`${project} `)).map((one) => one.slice(project.length + 1))),
    turn,
  ];
}
