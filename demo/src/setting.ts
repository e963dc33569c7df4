/** What a document of a building is put together with: materials, patterns, walls and openings, one by one. */
import { shipped, shippedMaterials, takenIn } from '@yard-arch/edit';
import {
  dimensionNames,
  emptyDocument,
  type Layer,
  type Opening,
  type Pattern,
  type ProjectDocument,
  type TextureName,
  type Wall,
} from '@yard-arch/document';

/** A document as it is put together; openings are numbered as they come. */
export class Setting {
  readonly document: ProjectDocument;
  private number = 0;

  constructor(name: string) {
    this.document = emptyDocument(name);
  }

  /** Adds a material. */
  material(
    id: string,
    name: string,
    colour: string,
    { roughness = 0.9, texture }: { roughness?: number | undefined; texture?: TextureName | undefined },
  ): void {
    this.document.materials[id] = { id, name, colour, roughness, ...(texture ? { texture } : {}) };
  }

  /** Adds a wall, from where it begins and which way it turns there; metres, degrees. */
  wall(
    id: string,
    name: string,
    { x, y, turn, length, height }: { x: number; y: number; turn: number; length: number; height: number },
    {
      layers,
      top = { kind: 'level' },
      more = {},
    }: { layers: Layer[]; top?: Wall['top'] | undefined; more?: Partial<Wall> | undefined },
  ): void {
    this.document.elements[id] = {
      id,
      kind: 'wall',
      name,
      start: { x, y, z: 0 },
      turn,
      length,
      height,
      top,
      layers,
      ...more,
    } satisfies Wall;
  }

  /** Adds a pattern in sizes, each told by its dimensions in the order of its shape. */
  pattern(
    id: string,
    name: string,
    { shape, sizes }: { shape: Pattern['profile']['shape']; sizes: Record<string, number[]> },
    { reveal, more = {} }: { reveal: Pattern['reveal']; more?: Partial<Pattern> | undefined },
  ): void {
    const names = dimensionNames(shape);
    this.document.patterns[id] = {
      id,
      name,
      profile: { shape },
      reveal,
      ...more,
      sizes: Object.fromEntries(
        Object.entries(sizes).map(([size, values]) => [
          size,
          { id: size, name: '', dimensions: Object.fromEntries(names.map((n, i) => [n, values[i]!])) },
        ]),
      ),
    };
  }

  /** Adds an axis so far along an element. */
  axis(element: string, name: string, along: number): void {
    const id = `${element}-${name.toLowerCase()}`;
    this.document.axes[id] = { id, name, element, along };
  }

  /** Places an opening on an axis or along the element, up from a datum or otherwise. */
  place(
    element: string,
    { pattern, size }: { pattern: string; size: string },
    { at, up }: { at: string | Opening['along']; up: string | Opening['up'] },
    over: Partial<Opening> = {},
  ): void {
    this.number += 1;
    const id = `o${this.number}`;
    this.document.openings[id] = {
      id,
      mark: `${typeof at === 'string' ? at.toUpperCase() : 'W'}-${String(this.number).padStart(2, '0')}`,
      element,
      pattern,
      size,
      along: typeof at === 'string' ? { from: 'axis', axis: `${element}-${at}`, distance: 0 } : at,
      up: typeof up === 'string' ? { from: 'datum', datum: up, distance: 0 } : up,
      grip: { across: 'centre', level: 'sill' },
      blockedUp: false,
      ...over,
    };
  }

  /** Takes a pattern of the shelf in, with the materials that it needs. */
  takeIn(id: string): void {
    const { pattern: taken, changes } = takenIn(
      this.document,
      shipped.find((one) => one.id === id)!,
      shippedMaterials,
      id,
    );
    this.document.patterns[id] = taken;
    for (const change of changes)
      if (change.op === 'put' && change.table === 'materials') this.document.materials[change.value.id] = change.value;
  }
}
