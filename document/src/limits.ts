/** How much a figure may be, read off its schema: what a field refuses is what the document would refuse. */
import type { z } from 'zod';
import { coordinate, degrees, extent } from './figures.ts';
import { common } from './kinds/common.ts';
import { roofEdgeSchema } from './kinds/roof/roof.ts';
import { topSchema, wallSchema } from './kinds/wall/wall.ts';
import { fieldSchema, infillSchema } from './infill-schema.ts';
import {
  archRingSchema,
  guardSchema,
  liningSchema,
  lintelSchema,
  partSchema,
  shuttersSchema,
  stoneSillSchema,
  surroundSchema,
} from './part-schema.ts';
import { patternSchema } from './pattern-schema.ts';
import { documentSchema } from './schema.ts';
import { openingSchema } from './tables/openings.ts';

/** The least and the most that a figure may be, or that a list may hold. */
export interface Limits {
  least: number;
  most: number;
}

interface Def {
  innerType?: z.ZodType;
  element?: z.ZodType;
  valueType?: z.ZodType;
  shape?: Record<string, z.ZodType>;
  options?: z.ZodType[];
  /** Of schemas that lie in themselves. */
  getter?: () => z.ZodType;
  /** Of numbers by their value, of lists by how many they hold. */
  checks?: { _zod: { def: { check: string; value?: number; minimum?: number; maximum?: number } } }[];
}

const defOf = (schema: z.ZodType): Def => (schema._zod as unknown as { def: Def }).def;

/** The schema at a path such as `sections/jamb-left/checks/0/step`; of several kinds that of the first which has it. */
function at(schema: z.ZodType, path: readonly string[]): z.ZodType | null {
  const def = defOf(schema);
  if (def.innerType) return at(def.innerType, path);
  if (def.getter) return at(def.getter(), path);
  const [key, ...rest] = path;
  if (key === undefined) return schema;
  if (def.options) return def.options.map((option) => at(option, path)).find((found) => found !== null) ?? null;
  const next = def.shape?.[key] ?? def.element ?? def.valueType;
  return next ? at(next, rest) : null;
}

/** @throws Error where a schema has no such path. */
export function limitsAt(schema: z.ZodType, path = ''): Limits {
  const found = at(schema, path.split('/').filter(Boolean));
  if (!found) throw new Error(`The schema has no “${path}”.`);
  const checks = (defOf(found).checks ?? []).map(({ _zod: { def } }) => def);
  const least = checks.map(({ check, value, minimum }) => (check === 'greater_than' ? value : minimum) ?? -Infinity);
  const most = checks.map(({ check, value, maximum }) => (check === 'less_than' ? value : maximum) ?? Infinity);
  return { least: Math.max(-Infinity, ...least), most: Math.min(Infinity, ...most) };
}

/** By what the figures are. Lengths in metres, angles in degrees, lists by how many they hold. */
export const limits = {
  extent: limitsAt(extent),
  coordinate: limitsAt(coordinate),
  degrees: limitsAt(degrees),
  layers: limitsAt(common.layers),
  smooth: limitsAt(common.smooth),
  batter: limitsAt(wallSchema, 'batter'),
  runs: limitsAt(wallSchema, 'runs'),
  pitch: limitsAt(roofEdgeSchema, 'pitch'),
  rising: limitsAt(roofEdgeSchema, 'second/pitch'),
  overhang: limitsAt(roofEdgeSchema, 'over'),
  facets: limitsAt(roofEdgeSchema, 'facets'),
  steps: limitsAt(topSchema, 'steps'),
  chord: limitsAt(documentSchema, 'chord'),
  splay: limitsAt(patternSchema, 'sections/head/splayOutside'),
  checks: limitsAt(patternSchema, 'sections/head/checks'),
  checkStep: limitsAt(patternSchema, 'sections/head/checks/0/step'),
  arris: limitsAt(patternSchema, 'sections/head/arris/size'),
  arrisSegments: limitsAt(patternSchema, 'sections/head/arris/segments'),
  parts: limitsAt(patternSchema, 'parts'),
  outline: limitsAt(patternSchema, 'profile/outline'),
  islands: limitsAt(patternSchema, 'profile/islands'),
  sides: limitsAt(patternSchema, 'profile/sides'),
  rise: limitsAt(openingSchema, 'aim/rise'),
  open: limitsAt(openingSchema, 'open'),
  board: limitsAt(partSchema, 'thickness'),
  surround: limitsAt(partSchema, 'width'),
  nosing: limitsAt(partSchema, 'nosing'),
  horns: limitsAt(partSchema, 'horns'),
  seat: limitsAt(infillSchema, 'seat/depth'),
  seatLayer: limitsAt(infillSchema, 'seat/layer'),
  gap: limitsAt(infillSchema, 'gap'),
  member: limitsAt(infillSchema, 'frame/width'),
  pane: limitsAt(fieldSchema, 'thickness'),
  panes: limitsAt(fieldSchema, 'panes'),
  cavity: limitsAt(fieldSchema, 'cavity'),
  joint: limitsAt(fieldSchema, 'joint'),
  slope: limitsAt(fieldSchema, 'slope'),
  fan: limitsAt(fieldSchema, 'count'),
  rings: limitsAt(fieldSchema, 'rings'),
  folds: limitsAt(fieldSchema, 'folds'),
  moulding: limitsAt(infillSchema, 'frame/moulding/size'),
  straps: limitsAt(fieldSchema, 'straps/count'),
  inFace: limitsAt(lintelSchema, 'depth'),
  proud: limitsAt(lintelSchema, 'proud'),
  bearing: limitsAt(lintelSchema, 'bearing'),
  stones: limitsAt(archRingSchema, 'stones'),
  keystone: limitsAt(archRingSchema, 'keystone/rise'),
  fall: limitsAt(stoneSillSchema, 'fall'),
  ends: limitsAt(stoneSillSchema, 'ends'),
  lap: limitsAt(shuttersSchema, 'lap'),
  barDepth: limitsAt(guardSchema, 'depth'),
  rail: limitsAt(guardSchema, 'rail'),
  off: limitsAt(surroundSchema, 'off'),
  lining: limitsAt(liningSchema, 'thickness'),
  clearance: limitsAt(fieldSchema, 'clearance'),
  angle: limitsAt(fieldSchema, 'angle'),
  vary: limitsAt(fieldSchema, 'vary'),
  lights: limitsAt(fieldSchema, 'lights/count'),
  lightsPlace: limitsAt(fieldSchema, 'lights/places/0/value'),
  lightsPlaces: limitsAt(fieldSchema, 'lights/places'),
  fields: limitsAt(fieldSchema, 'fields'),
};
