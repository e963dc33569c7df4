/** Everything that can be done, by name: what the finder finds, what context menus offer, and what keys do. */
import { now, type Command } from './command.ts';
import { goingTo, inProject } from './in-project.ts';
import type { KeyId } from '../common/keys.ts';
import { onWall } from './on-wall.ts';
import { withChosen } from './with-chosen.ts';

/** All that can be done with the document and the choice as they are. */
export function commandsNow(): Command[] {
  const about = now();
  return about ? [withChosen, onWall, inProject, goingTo].flatMap((room) => room(about)) : [];
}

/** Does what a key stands for. @returns whether there was something that it stands for now. */
export function runByKey(key: KeyId): boolean {
  const command = commandsNow().find((candidate) => candidate.key === key);
  command?.run();
  return command !== undefined;
}
