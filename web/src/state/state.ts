/** The editor's state: what is shown of a project, what is chosen, and how its saving stands. */
import type { MeshProof, Outcome } from '@yard-arch/core';
import type { FaceName, Grip } from '@yard-arch/document';
import { create } from 'zustand';
import type { DrawnElement, DrawnPart } from './cut-messages.ts';
import type { Shown } from './session.ts';

/** What is chosen: openings of one element, in the order in which they were chosen, a pattern (to be looked at or placed), a datum or an axis, the project with its materials, its history, or nothing but the wall itself. */
export type Chosen =
  | { kind: 'wall' }
  | { kind: 'project' }
  | { kind: 'history' }
  | { kind: 'datum' | 'axis'; id: string }
  /** An edge of the chosen roof. */
  | { kind: 'edge'; id: string }
  | { kind: 'openings'; ids: readonly string[] }
  | { kind: 'pattern'; id: string };

/** What can be on the board: the chosen element's sheet, the plan, the table of openings; or the pattern book, which has the page to itself. */
const boards = ['sheet', 'plan', 'table', 'book'] as const;
export type Board = (typeof boards)[number];

/** How much room the model has: beside the sheet, half the desk, or none: it is folded away to a bar, and nothing of it is drawn. */
export const modelRooms = ['usual', 'large', 'folded'] as const;
export type ModelRoom = (typeof modelRooms)[number];

/** The ids of openings that are chosen. */
export const chosenIds = (chosen: Chosen): readonly string[] => (chosen.kind === 'openings' ? chosen.ids : nothing);
const nothing: readonly string[] = [];

interface EditorState extends Shown {
  project: string | null;
  /** Why the project cannot be shown; `deleted` where it is not there, or no more, and how many unsent edits this browser keeps of it. */
  failure: { title: string; detail: string; passing: boolean; deleted: boolean; kept: number } | null;
  element: string | null;
  /** The face that an element's sheet shows, where that is not its first. */
  faces: ReadonlyMap<string, FaceName>;
  chosen: Chosen;
  /** The size that a click on the sheet places, or null. */
  placing: { pattern: string; size: string } | null;
  /** Which drawing is on the board: the chosen element's sheet, or the plan. */
  board: Board;
  /** How much room the model has; remembered in this browser. */
  modelRoom: ModelRoom;
  /** The dialog that is open over the page. */
  dialog: 'finder' | 'keys' | 'sheets' | 'aside' | null;
  /** Elements that are not shown in the model and only faintly in plan; remembered in this browser. */
  hidden: ReadonlySet<string>;
  /** The point by which an opening is placed and held. */
  grip: Grip;
  /** Whether clicks on the sheet measure. */
  taping: boolean;
  /** Whether a drag on the sheet moves the drawing, as the middle button does. */
  sliding: boolean;
  /** What was copied last, and how far, to be copied on. */
  lastCopy: { ds: number; dt: number } | null;
  /** Openings, or a whole wall's setting-out, to be pasted. */
  clip: { kind: 'openings'; ids: readonly string[] } | { kind: 'wall'; id: string } | null;
  drawn: ReadonlyMap<string, DrawnElement>;
  /** What is left of the faces of elements with very many openings, as they were told of last. */
  lateFaces: ReadonlyMap<string, string>;
  /** Meshes of parts, by their keys. */
  parts: ReadonlyMap<string, DrawnPart>;
  /** How often a mesh from outside has come in: what was drawn before may lack it. */
  meshes: number;
  statuses: ReadonlyMap<string, Outcome>;
  proofs: ReadonlyMap<string, MeshProof>;
  /** How often something has been cut. */
  cuts: number;
  cutFailure: string | null;
}

/** The face of an element that its sheet shows. */
export const useFace = (element: string): FaceName => useEditor(({ faces }) => faces.get(element) ?? 'outer');

/** The same, as it is now. */
export const faceNow = (element: string): FaceName => useEditor.getState().faces.get(element) ?? 'outer';

export const useEditor = create<EditorState>(() => initial());

/** The state before any project is opened. */
export function initial(): EditorState {
  return {
    project: null,
    failure: null,
    document: null,
    draft: null,
    saving: 'saved',
    trouble: null,
    pendingCount: 0,
    aside: [],
    replaced: [],
    undo: [],
    redo: [],
    element: null,
    faces: new Map(),
    chosen: { kind: 'wall' },
    placing: null,
    board: boards.find((board) => board === localStorage.getItem('yard-arch-board')) ?? 'sheet',
    modelRoom: modelRooms.find((room) => room === localStorage.getItem('yard-arch-model-room')) ?? 'usual',
    dialog: null,
    hidden: new Set(),
    grip: { across: 'centre', level: 'sill' },
    taping: false,
    sliding: false,
    lastCopy: null,
    clip: null,
    drawn: new Map(),
    lateFaces: new Map(),
    parts: new Map(),
    meshes: 0,
    statuses: new Map(),
    proofs: new Map(),
    cuts: 0,
    cutFailure: null,
  };
}
