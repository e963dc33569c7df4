/** All colours, in one place: those of the drawing office, and those of the maquette on its table. The theme gives them to the page, as tokens and as variables for its styles. */

/** Of the page and its drawings. */
export const colours = {
  chalk: '#f4f0e6',
  paper: '#fdfbf5',
  /** Paper that lies a little lower: what is pointed at, and lists within lists. */
  paperDeep: '#faf6ec',
  ink: '#1e2a33',
  ink2: '#5b6670',
  ink3: '#9aa1a6',
  line: '#dad3c2',
  hatch: '#f0e6d6',
  hatchLine: '#b8a88f',
  /** What is cut across, hatched. */
  section: '#c58562',
  brick: '#b0442b',
  brickPale: '#fbf1ea',
  brickSoft: '#f3e5da',
  brickLine: '#dfc0b1',
  lichen: '#4c6632',
  glass: '#c9d6da',
  glassPale: '#dde6e7',
  warning: '#8a5a08',
  warningInk: '#633f03',
  warningPale: '#fbf0d6',
} as const;

/** Of the model. */
export const modelColours = {
  sun: '#fff4e2',
  shade: '#2a1c12',
  /** What is cut open by the plane. */
  section: '#6d4a3c',
  blockedUp: '#8a7c66',
  clay: '#d8d0c2',
  /** Faces seen from outside, where their sides are shown. */
  outside: '#cfdabf',
  /** Of a material that is not there. */
  unknown: '#999999',
} as const;

/** Of the air about the model: the sky's zenith and horizon, the ground, and the light from above and below. */
export const airColours = {
  light: { zenith: '#c3d3da', horizon: '#ece7da', ground: '#d5cab4', above: '#f7fbff', below: '#b8a98d' },
  dark: { zenith: '#14191d', horizon: '#2b3136', ground: '#2b3034', above: '#e8eef4', below: '#6a6258' },
} as const;
