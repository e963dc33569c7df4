/** Sheets of pictures for docs: every profile, every kind of cut and every form of roof, each drawn by the core. */
import { cutModel, prove, resolveOpening } from '@yard-arch/core';
import { drawPicture } from '@yard-arch/core/format';
import { everyCut, everyDormer, everyProfile, everyRoof, everyVault } from '@yard-arch/demo';
import { profileShapes, type Element, type ProfileShape, type ProjectDocument, type Roof } from '@yard-arch/document';

interface Cell {
  name: string;
  document: ProjectDocument;
  /** From how far above it is seen, degrees. */
  above?: number;
}

/** Each profile in a piece of wall of its own. */
function profileCells(): Cell[] {
  const whole = everyProfile();
  return (Object.keys(profileShapes) as ProfileShape[]).map((shape) => {
    const opening = Object.values(whole.openings).find((o) => o.pattern === shape)!;
    const wall = whole.elements.wall!;
    const placed = resolveOpening(whole, opening);
    if (!('outline' in placed)) throw new Error(`${shape} cannot be placed`);
    const { profile } = placed;
    const [width, height] = [profile.width * 1.5 + 0.1, profile.height * 1.35 + 0.1];
    if (wall.kind !== 'wall') throw new Error('profiles are shown in a wall');
    return {
      name: profileShapes[shape].name,
      document: {
        ...whole,
        elements: {
          wall: { ...wall, length: width, height, layers: [{ thickness: 0.16 * width, material: 'limewash' }] },
        },
        materials: {
          ...whole.materials,
          limewash: { ...whole.materials.limewash!, colour: '#c58562' },
          stone: { ...whole.materials.stone!, colour: '#e6dfcf' },
        },
        openings: {
          [opening.id]: {
            ...opening,
            along: { from: 'middle', distance: 0 },
            up: { from: 'base', distance: height / 2 },
            grip: { across: 'centre', level: 'middle' },
          },
        },
      },
    };
  });
}

/** Each element of a document by itself, with what is on it. */
function elementCells(whole: ProjectDocument, of: (element: Element) => boolean = () => true): Cell[] {
  return Object.values(whole.elements)
    .filter(of)
    .map((element) => ({
      name: element.name,
      document: {
        ...whole,
        elements: { [element.id]: element },
        openings: Object.fromEntries(
          Object.entries(whole.openings).filter(([, opening]) => opening.element === element.id),
        ),
      },
    }));
}

/** Each form of dormer on a short piece of roof. */
function dormerCells(): Cell[] {
  const whole = everyDormer();
  const roof = whole.elements.every as Roof;
  const edges = roof.edges.map((edge) => ({ ...edge, x: Math.min(edge.x, 5) }));
  return Object.values(whole.openings)
    .filter(({ element }) => element === 'every')
    .map((opening) => ({
      name: whole.patterns[opening.pattern]!.name,
      document: {
        ...whole,
        elements: { every: { ...roof, edges } },
        openings: { [opening.id]: { ...opening, along: { from: 'middle', distance: 0 } } },
      },
    }));
}

/** A barrel with lunettes, its wall behind it. */
function lunetteCell(): Cell {
  const whole = everyVault();
  const own = ([, { id }]: [string, { id: string }]): boolean => id.startsWith('lunettes');
  return {
    name: 'Lunettes, an end walled up',
    above: 52,
    document: {
      ...whole,
      elements: Object.fromEntries(Object.entries(whole.elements).filter(own)),
      openings: Object.fromEntries(
        Object.entries(whole.openings).filter(([, { element }]) => element.startsWith('lunettes')),
      ),
    },
  };
}

/** The pages of the gallery, as HTML by name. @throws where a sample is not closed. */
export function galleryPages(): Record<string, string> {
  return {
    profiles: page('Every profile', profileCells(), 6),
    cuts: page('Every kind of cut', everyCut(), 6),
    roofs: page(
      'Every form of roof, dormer and vault',
      [
        ...elementCells(everyRoof()),
        ...dormerCells(),
        // From below, where their soffits are seen.
        ...elementCells(everyVault(), ({ id, name }) => id.startsWith('vault') && name !== 'Groin vault, oblong').map(
          (cell) => ({ ...cell, above: -16 }),
        ),
        lunetteCell(),
      ],
      6,
    ),
  };
}

function page(title: string, cells: readonly Cell[], columns: number): string {
  const figures = cells.map(({ name, document, above = 22 }) => {
    const model = cutModel(document);
    for (const cut of model.cuts.values()) if (!prove(cut.mesh).closed) throw new Error(`${name} is not closed.`);
    for (const status of model.statuses.values())
      if (status.state === 'not cut') throw new Error(`${name}: ${status.reason}`);
    const png = drawPicture(document, model, { width: 400, height: 340, from: { round: -58, above } });
    return `<figure><img src="data:image/png;base64,${Buffer.from(png).toString('base64')}"><figcaption>${name}</figcaption></figure>`;
  });
  return `<!doctype html><style>
    body { margin: 0; padding: 18px; width: 1244px; background: #fdfbf5; color: #1e2a33; font: 500 14px 'Barlow Semi Condensed', sans-serif; }
    h1 { font: 600 19px Barlow, sans-serif; margin: 0 0 12px; }
    main { display: grid; grid-template-columns: repeat(${columns}, 1fr); gap: 12px; }
    figure { margin: 0; border: 1px solid #dad3c2; } img { display: block; width: 100%; } figcaption { padding: 4px 8px 5px; }
  </style><h1>${title}</h1><main>${figures.join('')}</main>`;
}
