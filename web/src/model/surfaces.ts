/** Materials as the model draws them. */
import { modelColours } from '../colours.ts';
import { textureOf } from '@yard-arch/core/texture';
import { invalidate, type ThreeEvent } from '@react-three/fiber';
import { pictureSlots, type Asset, type Material, type Pictures, type ProjectDocument } from '@yard-arch/document';
import * as THREE from 'three';
import { assetUrl } from '../state/api.ts';
import type { Show } from './display.ts';

const images = new WeakMap<object, THREE.DataTexture>();

const pictured = new Map<string, THREE.Texture>();

/** A material's own picture, read from where it is kept; drawn when it has come. */
function pictureOf({ sha256 }: Asset, { width, height }: Pictures, colour: boolean): THREE.Texture {
  const key = `${sha256} ${width} ${height} ${colour}`;
  let image = pictured.get(key);
  if (!image) {
    image = new THREE.TextureLoader().load(assetUrl(sha256), () => invalidate());
    if (colour) image.colorSpace = THREE.SRGBColorSpace;
    image.wrapS = image.wrapT = THREE.RepeatWrapping;
    image.repeat.set(1 / width, 1 / height);
    image.anisotropy = 8;
    pictured.set(key, image);
  }
  return image;
}

/** A surface with pictures of its own; null where it has none. */
function picturedSurface(material: Material, assets: ProjectDocument['assets']): Surface | null {
  const { pictures } = material;
  const [colour, rough, normal] = pictureSlots.map((slot) => assets[pictures?.[slot] ?? '']);
  if (!pictures || !(colour ?? rough ?? normal)) return null;
  return new THREE.MeshStandardMaterial({
    color: colour ? 'white' : material.colour,
    metalness: 0,
    roughness: rough ? 1 : material.roughness,
    ...(colour ? { map: pictureOf(colour, pictures, true) } : {}),
    ...(rough ? { roughnessMap: pictureOf(rough, pictures, false) } : {}),
    ...(normal ? { normalMap: pictureOf(normal, pictures, false) } : {}),
  });
}

type Surface = THREE.MeshLambertMaterial | THREE.MeshStandardMaterial;

/** A material as it is drawn: its pictures, its colour, or its texture in that colour. Images are made once and shared. */
function surfaceOf(material: Material | undefined, assets: ProjectDocument['assets']): Surface {
  const own = material && picturedSurface(material, assets);
  if (own) return own;
  if (!material?.texture) return new THREE.MeshLambertMaterial({ color: material?.colour ?? modelColours.unknown });
  const texture = textureOf(material.texture, material.colour);
  let image = images.get(texture);
  if (!image) {
    const { width, height, data, metres } = texture;
    // Graphics cards take four figures a dot, and the lowest row first.
    const dots = new Uint8Array(4 * width * height).fill(255);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        dots.set(data.subarray(3 * (y * width + x), 3 * (y * width + x) + 3), 4 * ((height - 1 - y) * width + x));
    image = new THREE.DataTexture(dots, width, height, THREE.RGBAFormat);
    image.colorSpace = THREE.SRGBColorSpace;
    image.wrapS = image.wrapT = THREE.RepeatWrapping;
    image.repeat.set(1 / metres[0], 1 / metres[1]);
    image.magFilter = THREE.LinearFilter;
    image.minFilter = THREE.LinearMipmapLinearFilter;
    image.generateMipmaps = true;
    image.anisotropy = 4;
    image.needsUpdate = true;
    images.set(texture, image);
  }
  return new THREE.MeshLambertMaterial({ map: image });
}

const { outside, clay } = modelColours;

/** A surface for each material of some runs. */
export function surfacesOf(
  ids: readonly string[],
  { materials, assets }: Pick<ProjectDocument, 'materials' | 'assets'>,
  show: Show,
  clip: THREE.Plane | null,
): Surface[] {
  return ids.map((id) => {
    const surface =
      show === 'sides' || show === 'clay'
        ? new THREE.MeshLambertMaterial({ color: show === 'clay' ? clay : outside })
        : surfaceOf(materials[id], assets);
    const opacity = materials[id]?.opacity;
    if (opacity !== undefined && opacity < 1 && show !== 'sides' && show !== 'clay')
      Object.assign(surface, { transparent: true, opacity, depthWrite: false });
    if (show === 'see-through')
      Object.assign(surface, { transparent: true, opacity: 0.32, depthWrite: false, side: THREE.DoubleSide });
    // Edges lie on the surfaces: these give way by a hair, so that lines are whole.
    Object.assign(surface, { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 });
    surface.clippingPlanes = clip ? [clip] : null;
    // What is taken away casts no shadow either.
    surface.clipShadows = true;
    return surface;
  });
}

/** Whether what a ray met has been taken away by the plane. */
export const isAway = (clip: THREE.Plane | null, { point }: Pick<ThreeEvent<MouseEvent>, 'point'>): boolean =>
  clip !== null && clip.distanceToPoint(point) < 0;
