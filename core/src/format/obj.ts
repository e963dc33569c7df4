/** OBJ with MTL (Wavefront, 1992): an object an element, a group for each layer that is a solid and each opening, faces by material, in metres, y up. */
import { grouped, type PictureSlot, type ProjectDocument } from '@yard-arch/document';
import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { CutMesh, Run } from '../mesh/cut-mesh.ts';
import type { ElementCut } from '../model/cut-element.ts';
import type { Model } from '../model/model.ts';
import { meshIn } from '../element/placed-mesh.ts';
import { convexParts } from './convex.ts';
import { imagesOf, type MaterialImage, type MaterialImages } from './images.ts';
import { originOf, type Point } from './local.ts';
import { noAssets, type AssetSource } from './project-file.ts';
import { Names, safeName } from './names.ts';
import { linearColour, materialsIn, solidsOf } from './surfaces.ts';
import { rounded } from '../tidy.ts';

/** A file of the export, its content in pieces. */
export interface ObjFile {
  name: string;
  pieces: Iterable<string | Uint8Array>;
}

/** The least count of characters in a piece. */
const pieceSize = 1 << 20;

function figure(value: number): string {
  return String(rounded(value));
}

const oneLine = (text: string): string => text.replace(/[\p{Cc}\s]+/gu, ' ').trim();

/**
 * The model as OBJ, MTL and the images that the MTL names, and where it lies far from the origin a file that says from where it was moved; nothing is computed before it is asked for.
 * @param stem what the files' names begin with.
 * @param onShare hears which share of the OBJ is written.
 */
export function objFiles(
  document: ProjectDocument,
  model: Model,
  stem: string,
  {
    onShare = () => {},
    source = noAssets,
  }: { onShare?: ((share: number) => void) | undefined; source?: AssetSource | undefined } = {},
): ObjFile[] {
  const safe = safeName(stem);
  const names = new Names();
  const used = materialsIn(model);
  for (const id of used) names.of(id, document.materials[id]!.name);
  const origin = originOf([...model.cuts.values()].map((cut) => cut.mesh));
  const moved = origin.some((value) => value !== 0);
  const found = new Map([...used].map((id) => [id, imagesOf(document, document.materials[id]!, source)]));
  const image = (id: string, { slot, ending }: MaterialImage): string =>
    `${safe}-${names.of(id, '')}${slot === 'colour' ? '' : `-${slot}`}.${ending}`;
  const metres = (id: string): readonly [number, number] => found.get(id)?.metres ?? [1, 1];
  return [
    {
      name: `${safe}.obj`,
      pieces: new ObjWriter(document, model, names, { origin, metres }).pieces(
        `${safe}.mtl`,
        moved ? `${safe}.origin.json` : null,
        onShare,
      ),
    },
    { name: `${safe}.mtl`, pieces: [mtlOf(document, names, found, image)] },
    ...[...found].flatMap(([id, own]) =>
      (own?.images ?? []).map((one) => ({ name: image(id, one), pieces: imageOf(one) })),
    ),
    ...(moved
      ? [
          {
            name: `${safe}.origin.json`,
            pieces: [
              `${JSON.stringify({ unit: 'metre', up: 'y', movedBy: yUp(origin).map((value) => 0 - value), addToGetBack: yUp(origin) }, null, 2)}\n`,
            ],
          },
        ]
      : []),
  ];
}

const yUp = ([x, y, z]: Point): number[] => [x, z, 0 - y];

function* imageOf({ bytes }: MaterialImage): Generator<Uint8Array> {
  yield bytes();
}

/** What the MTL calls a picture of each kind; the second and third are of its extension for surfaces. */
const maps: Record<PictureSlot, string> = { colour: 'map_Kd', roughness: 'map_Pr', normal: 'norm' };

function mtlOf(
  document: ProjectDocument,
  names: Names,
  found: ReadonlyMap<string, MaterialImages | null>,
  image: (id: string, of: MaterialImage) => string,
): string {
  const mtl = [`# Materials of ${oneLine(document.name)}`];
  for (const [id, own] of found) {
    const { colour, roughness, opacity = 1 } = document.materials[id]!;
    const images = own?.images ?? [];
    const pictured = images.some(({ slot }) => slot === 'colour');
    mtl.push(
      `newmtl ${names.of(id, '')}`,
      `Kd ${pictured ? '1 1 1' : linearColour(colour).map(figure).join(' ')}`,
      'Ks 0 0 0',
      `Pr ${figure(roughness)}`,
      `d ${figure(opacity)}`,
      'illum 1',
    );
    for (const one of images) mtl.push(`${maps[one.slot]} ${image(id, one)}`);
  }
  return `${mtl.join('\n')}\n`;
}

/** Text that is gathered until there is a piece of it. */
class Text {
  private lines: string[] = [];
  private size = 0;

  line(text: string): void {
    this.lines.push(text);
    this.size += text.length + 1;
  }

  /** What has been gathered, once there is enough, or all that is left. */
  *ready(all = false): Generator<string> {
    if (this.lines.length === 0 || (!all && this.size < pieceSize)) return;
    yield `${this.lines.join('\n')}\n`;
    [this.lines, this.size] = [[], 0];
  }
}

/** Texture coordinates or normals that are there already, by what they read. */
class Shared {
  private readonly known = new Map<string, number>();
  private count = 0;

  constructor(private readonly text: Text) {}

  /** The number of a line, which is written where there is none such. */
  of(line: string): number {
    const known = this.known.get(line);
    if (known !== undefined) return known;
    this.text.line(line);
    this.known.set(line, ++this.count);
    return this.count;
  }

  get size(): number {
    return this.known.size;
  }

  /** Forgets what was written, so that a long file does not fill the memory; numbers go on. */
  forget(): void {
    this.known.clear();
  }
}

/** The most lines that are remembered for sharing. */
const mostShared = 200_000;

/** From where what is written is measured, and how its pictures lie on it. */
interface Surroundings {
  origin: Point;
  /** How wide and high a piece of surface the pictures of a material show. */
  metres: (material: string) => readonly [number, number];
}

class ObjWriter {
  private readonly text = new Text();
  private readonly textures = new Shared(this.text);
  private readonly normals = new Shared(this.text);
  private readonly objects = new Names();
  private readonly groups = new Names();
  private vertices = 0;

  private readonly origin: Point;
  private readonly metres: Surroundings['metres'];

  constructor(
    private readonly document: ProjectDocument,
    private readonly model: Model,
    private readonly materials: Names,
    { origin, metres }: Surroundings,
  ) {
    this.origin = origin;
    this.metres = metres;
  }

  *pieces(mtl: string, originFile: string | null, onShare: (share: number) => void): Generator<string> {
    this.text.line(`# ${oneLine(this.document.name)}, written by Yard Arch. Metres, y up.`);
    if (originFile)
      this.text.line(
        `# Far from the origin: add ${yUp(this.origin).map(figure).join(' ')} to every vertex to get back (${originFile}).`,
      );
    this.text.line(`mtllib ${mtl}`);
    const total = [...this.model.cuts.values()].reduce((sum, cut) => sum + cut.mesh.runs.length, 0) || 1;
    let done = 0;
    for (const cut of this.model.cuts.values()) {
      if (cut.mesh.triangles.length === 0) continue;
      yield* this.element(cut, (runs) => onShare((done += runs) / total));
    }
    yield* this.text.ready(true);
  }

  /** The parts of an element, each a group of its own: the format knows no instances. */
  private *parts(cut: ElementCut, name: string): Generator<string> {
    for (const { part, opening, placement, id } of cut.parts) {
      const mesh = meshIn(placement, part.mesh);
      const mark = this.document.openings[opening]?.mark ?? opening;
      this.text.line(`g ${name} ${this.groups.of(`${opening} part ${id}`, `${name}_${mark}_${part.name}`)}`);
      yield* this.points(mesh);
      for (const [material, runs] of grouped(mesh.runs, (run) => run.material)) {
        this.text.line(`usemtl ${this.materials.of(material, '')}`);
        for (const run of runs) this.faces(mesh, run, material);
      }
      this.vertices += mesh.points.length / 3;
      yield* this.text.ready();
    }
  }

  private *element(cut: ElementCut, onRuns: (runs: number) => void): Generator<string> {
    const element = this.document.elements[cut.element]!;
    const name = this.objects.of(element.id, element.name);
    this.text.line(`o ${name}`);
    this.text.line(`# element ${element.id}`);
    for (const { opening, state } of cut.statuses) {
      const { mark, pattern } = this.document.openings[opening]!;
      this.text.line(
        `# opening ${opening}: ${oneLine(mark)}, ${oneLine(this.document.patterns[pattern]?.name ?? '')}, ${state}`,
      );
    }
    yield* this.points(cut.mesh);
    for (const solid of solidsOf(cut, element.skins === 'layers')) {
      const layer =
        solid.layer === null
          ? name
          : this.groups.of(`${element.id} layer ${solid.layer}`, `${name}_layer_${solid.layer + 1}`);
      for (const [opening, runs] of grouped(solid.runs, (run) => run.opening)) {
        this.text.line(
          `g ${opening === null ? layer : `${layer} ${this.groups.of(`${layer} ${opening}`, `${layer}_${this.document.openings[opening]?.mark ?? opening}`)}`}`,
        );
        for (const [material, same] of grouped(runs, (run) => run.material)) {
          this.text.line(`usemtl ${this.materials.of(material, '')}`);
          for (const run of same) {
            this.faces(cut.mesh, run, material);
            yield* this.text.ready();
          }
          onRuns(same.length);
        }
      }
    }
    this.vertices += cut.mesh.points.length / 3;
    yield* this.parts(cut, name);
  }

  private *points({ points }: CutMesh): Generator<string> {
    const [ox, oy, oz] = this.origin;
    for (let v = 0; v < points.length; v += 3) {
      this.text.line(`v ${figure(points[v]! - ox)} ${figure(points[v + 2]! - oz)} ${figure(oy - points[v + 1]!)}`);
      if (v % 3000 === 0) yield* this.text.ready();
    }
  }

  private faces(mesh: CutMesh, run: Run, material: string): void {
    // The format knows no scale of textures that all programs heed, so a textured material's coordinates count repeats of its image.
    const [w, h] = this.metres(material);
    // Corners are shared within a run: each is written once.
    const written = new Map<number, string>();
    const cornerOf = (c: number): string => {
      let corner = written.get(c);
      if (corner === undefined) {
        const uv = this.textures.of(`vt ${figure(mesh.uvs[2 * c]! / w)} ${figure(mesh.uvs[2 * c + 1]! / h)}`);
        const normal = this.normals.of(
          `vn ${figure(mesh.normals[3 * c]!)} ${figure(mesh.normals[3 * c + 2]!)} ${figure(-mesh.normals[3 * c + 1]!)}`,
        );
        corner = `${this.vertices + mesh.vertices[c]! + 1}/${uv}/${normal}`;
        written.set(c, corner);
      }
      return corner;
    };
    let triangle = run.first;
    for (let p = run.firstPolygon; p < run.firstPolygon + run.polygons; p++) {
      for (const part of convexParts(mesh, p, triangle)) this.text.line(`f ${part.map(cornerOf).join(' ')}`);
      triangle += mesh.polygonStart[p + 1]! - mesh.polygonStart[p]! - 2;
    }
    for (const shared of [this.textures, this.normals]) if (shared.size > mostShared) shared.forget();
  }
}

/** All files as one ZIP, in pieces as they come. */
export function* objPieces(
  document: ProjectDocument,
  model: Model,
  stem: string,
  { onShare, source = noAssets }: { onShare: (share: number) => void; source?: AssetSource | undefined },
): Generator<Uint8Array> {
  const ready: Uint8Array[] = [];
  const zip = new Zip((error, bytes) => {
    if (error) throw error;
    ready.push(bytes);
  });
  for (const { name, pieces } of objFiles(document, model, stem, { onShare, source })) {
    // Pictures are compressed already.
    const file = /\.(png|jpg|webp)$/.test(name) ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 1 });
    // The same input gives the same file.
    file.mtime = '2000-01-01T12:00:00';
    zip.add(file);
    for (const piece of pieces) {
      file.push(typeof piece === 'string' ? strToU8(piece) : piece);
      yield* ready.splice(0);
    }
    file.push(new Uint8Array(0), true);
    yield* ready.splice(0);
  }
  zip.end();
  yield* ready;
}
