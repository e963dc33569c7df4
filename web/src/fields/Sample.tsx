/** Samples of materials: a small block with its arris, as it would lie on the desk; and materials chosen by them. */
import { textureOf } from '@yard-arch/core/texture';
import type { Material, ProjectDocument } from '@yard-arch/document';
import { useEffect, useId, useState, type ComponentProps } from 'react';
import { assetUrl } from '../state/api.ts';
import { PictureChoice } from './PictureChoice.tsx';

type Look = Pick<Material, 'colour' | 'texture' | 'pictures'>;

/** A picture to be repeated, and how large a piece of surface it shows, metres. */
interface Tile {
  url: string;
  width: number;
  height: number;
}

const tiles = new Map<string, Tile>();

/** A texture of ours as a picture that a drawing can hold; made once for each colour. */
function textureTile(texture: NonNullable<Material['texture']>, colour: string): Tile {
  const key = `${texture} ${colour}`;
  let tile = tiles.get(key);
  if (!tile) {
    const { width, height, data, metres } = textureOf(texture, colour);
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [width, height];
    const context = canvas.getContext('2d')!;
    const image = context.createImageData(width, height);
    for (let i = 0; i < width * height; i++) {
      image.data.set(data.subarray(3 * i, 3 * i + 3), 4 * i);
      image.data[4 * i + 3] = 255;
    }
    context.putImageData(image, 0, 0);
    tile = { url: canvas.toDataURL('image/jpeg', 0.85), width: metres[0], height: metres[1] };
    tiles.set(key, tile);
  }
  return tile;
}

function useTile({ colour, texture, pictures }: Look, assets: ProjectDocument['assets']): Tile | null {
  const asset = pictures?.colour ? assets[pictures.colour] : undefined;
  const own =
    pictures && asset ? { url: assetUrl(asset.sha256), width: pictures.width, height: pictures.height } : null;
  const known = texture && !own ? (tiles.get(`${texture} ${colour}`) ?? null) : null;
  const [made, setMade] = useState<{ key: string; tile: Tile } | null>(null);
  const key = `${texture} ${colour}`;
  useEffect(() => {
    if (!texture || own || known) return;
    // Drawn after the page: it takes its time.
    const timer = setTimeout(() => setMade({ key, tile: textureTile(texture, colour) }), 0);
    return () => clearTimeout(timer);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, own === null, known === null]);
  return own ?? known ?? (made?.key === key ? made.tile : null);
}

/** How large a metre is on a sample, in its own units of which it is 40 wide. */
const metre = 46;

/** A block of a material: its front, its top and its side, and the arris between them. */
export function Sample({
  look,
  assets,
  width = 40,
}: {
  look: Look;
  assets: ProjectDocument['assets'];
  width?: number;
}) {
  const tile = useTile(look, assets);
  const id = useId();
  const fill = tile ? `url(#${id})` : look.colour;
  return (
    <svg className="sample" viewBox="0 0 40 34" width={width} height={(width * 34) / 40} aria-hidden="true">
      {tile && (
        <pattern
          id={id}
          width={tile.width * metre}
          height={tile.height * metre}
          patternUnits="userSpaceOnUse"
          x="2"
          y="12"
        >
          <image href={tile.url} width={tile.width * metre} height={tile.height * metre} preserveAspectRatio="none" />
        </pattern>
      )}
      <path d="M2 12L10 3H38L30 12Z" fill={fill} />
      <path d="M2 12L10 3H38L30 12Z" fill="white" opacity="0.24" />
      <path d="M2 12H30V32H2Z" fill={fill} />
      <path d="M30 12L38 3V23L30 32Z" fill={fill} />
      <path d="M30 12L38 3V23L30 32Z" fill="var(--ink)" opacity="0.34" />
      <path d="M2 12H30L38 3M30 12V32" fill="none" stroke="white" strokeWidth="1.1" opacity="0.6" />
      <path d="M2 12L10 3H38V23L30 32H2Z" fill="none" stroke="var(--ink)" strokeWidth="0.7" opacity="0.55" />
    </svg>
  );
}

/** A choice among things that are shown by samples. */
export function SampleChoice({
  options,
  assets,
  ...rest
}: Omit<ComponentProps<typeof PictureChoice>, 'options'> & {
  options: readonly { value: string; label: string; look: Look | null }[];
  assets: ProjectDocument['assets'];
}) {
  return (
    <PictureChoice
      {...rest}
      options={options.map(({ value, label, look }) => ({
        value,
        label,
        picture: look ? (width: number) => <Sample look={look} assets={assets} width={width} /> : null,
      }))}
    />
  );
}

/** A material of the project, chosen by its sample; `none` says what no material of its own means. */
export function MaterialChoice({
  label,
  value,
  document,
  none,
  onChange,
}: {
  label: string;
  value: string;
  document: ProjectDocument;
  none?: string | undefined;
  onChange: (id: string) => void;
}) {
  return (
    <SampleChoice
      label={label}
      value={value}
      assets={document.assets}
      options={[
        ...(none === undefined ? [] : [{ value: '', label: none, look: null }]),
        ...Object.values(document.materials).map((material) => ({
          value: material.id,
          label: material.name,
          look: material,
        })),
      ]}
      onChange={onChange}
    />
  );
}
