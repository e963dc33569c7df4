/** What the page and the cutting worker say to each other. */
import type { Fault, Front, MeshProof, Outcome, State, Told } from '@yard-arch/core';
import type { ChangeSet, FaceName, ProjectDocument } from '@yard-arch/document';

/** To the worker. Each message has a number; the answer names the last one that it takes in. */
export type ToWorker =
  /** The document; with the revision of the server's that it is, where it is no more than that. */
  | { kind: 'document'; number: number; document: ProjectDocument; revision: number | null }
  | { kind: 'apply'; number: number; changeSet: ChangeSet }
  /** What was told has been drawn: now there is time for what was left out. */
  | { kind: 'drawn'; number: number }
  /** Its project is left: nothing of it is kept or told any more. */
  | { kind: 'forget'; number: number }
  /** An edit that is being made, or null when it was given up; the document itself is not changed by it. */
  | { kind: 'preview'; number: number; changeSet: ChangeSet | null };

/** One element as cut, ready to be drawn. Positions are relative to `origin`, so that 32-bit figures suffice anywhere. */
export interface DrawnElement {
  element: string;
  origin: [number, number, number];
  positions: Float32Array;
  /** A sphere about it: x, y, z of its centre, and its radius. */
  sphere: [number, number, number, number];
  normals: Float32Array;
  /** Texture coordinates, metres. */
  uvs: Float32Array;
  triangles: Uint32Array;
  /** Lines as pairs of points; null where they are sent after. */
  creases: Float32Array | null;
  /** Whether what stands in it is drawn with its lines: not before it has been drawn without. */
  lined: boolean;
  runs: DrawnRuns;
  /** Runs of very many triangles that all face one way. */
  flats: DrawnFlat[];
  parts: DrawnInstances[];
  /** The face that is left: loops as SVG path data in metres, y up; null where there are very many openings, of which it is told after. */
  face: string | null;
  /** The same of the inner face, as it is seen from within; nothing of elements with very many openings, on which it is drawn whole. */
  innerFace: string;
  /** The same of each of many faces, by its name. */
  faces: Record<FaceName, string>;
  /** How many of its openings there are in each state. */
  states: Partial<Record<State, number>>;
  faceArea: number;
  /** What each of its openings takes from its face by itself, square metres. */
  areas: ReadonlyMap<string, number>;
  pieces: number;
  path: 'sheet' | 'solid';
  /** What became of the ends of a wall that were to be joined. */
  joins: readonly Told[];
  fault: Fault | null;
}

/** A part's mesh, ready to be drawn: one for all that are alike. Positions are its own. */
export interface DrawnPart {
  key: string;
  name: string;
  positions: Float32Array;
  normals: Float32Array;
  uvs: Float32Array;
  triangles: Uint32Array;
  creases: Float32Array;
  runs: DrawnRuns;
  /** What it covers as it is seen on its face: left, low, right, high, from the middle of its opening's sill; metres. */
  front: readonly Front[];
  /** Whether it stands within its opening, where it is seen from either face. */
  within: boolean;
}

/** Where parts of one mesh stand. */
export interface DrawnInstances {
  key: string;
  openings: string[];
  faces: FaceName[];
  /** 16 figures each, column by column, relative to the element's origin. */
  matrices: Float32Array;
}

/** Triangles that follow one another, of one material and one opening or none; as columns, for there are very many. */
export interface DrawnRuns {
  /** The first triangle of each, in ascending order, and how many there are. */
  first: Uint32Array;
  count: Uint32Array;
  /** Which of the materials each is of. */
  material: Uint32Array;
  materials: string[];
  /** Which of the openings each is of, counted from 1; 0 where it is of none. */
  opening: Uint32Array;
  openings: string[];
  /** Which of the faces each is of, counted from 1; 0 where its element has not many. */
  face: Uint32Array;
  faces: FaceName[];
}

/** A run whose triangles all face one way. */
export interface DrawnFlat {
  /** Its first triangle. */
  first: number;
  /** Which way, of length 1. */
  normal: [number, number, number];
  /** How far along that it stands, or the least of it, from the element's origin; metres. */
  least: number;
}

/** Statuses that are not as they were told last, and openings that have none any more. */
export interface NewStatuses {
  changed: Outcome[];
  gone: string[];
}

export type FromWorker =
  | {
      kind: 'model';
      number: number;
      elements: DrawnElement[];
      /** Meshes of parts that were not told before. */
      parts: DrawnPart[];
      removed: string[];
      statuses: NewStatuses;
    }
  /** Faces of elements with very many openings. */
  | { kind: 'faces'; number: number; faces: [string, string][] }
  /** Creases of elements that were sent without any. */
  | { kind: 'creases'; number: number; creases: [string, Float32Array][] }
  | { kind: 'proofs'; number: number; proofs: [string, MeshProof][] }
  | { kind: 'failed'; number: number; message: string };
