/** All tolerances, in one place, each with its reason. Lengths in metres. */

// What arithmetic leaves behind.

/** Two lengths that are meant alike differ by less: documents keep nothing finer than a nanometre (`tidy`). */
export const nanometre = 1e-9;
/** Two shares, turns or ratios that are meant alike differ by less. */
export const relative = 1e-9;
/** A sine, a determinant of directions or a small figure of no more than this is nothing: rounding alone makes as much. */
export const rounding = 1e-12;
/** Lengths along a developed curve agree to this: they are sums of a few hundred chords. */
export const developed = 1e-8;

// What is one and the same to those who build and to the files that are written.

/** Points nearer than this are one: files hold 32-bit figures, which are no finer than this a few metres off. */
export const micrometre = 1e-6;
/** Directions whose sine or determinant is less than this run alike: a micrometre in a metre. */
export const parallel = 1e-6;
/** What reaches over something by less only touches it: well below a micrometre, well above what sums of chords lose. */
export const touch = 1e-7;
/** The least length of an edge, a run or a reveal that can be made, a millimetre. */
export const millimetre = 1e-3;

// The mesh.

/** Corners of normals or texture nearer than this are one corner: two micrometres, for each may be off by one. */
export const cornersAlike = 2e-6;
/** Vertices that are the same in two meshes of one thing are this near. */
export const verticesAlike = 2e-6;
/** Meshes are compared on a grid so fine. */
export const meshGrain = 1e-6;
/** A triangle thinner than this, over its longest side, has collapsed. */
export const collapsed = 1e-9;
/** Two triangles at an edge whose normals are opposite to within this lie on each other. */
export const folded = 1e-7;
/** Twice the area that a triangle's normals span on the unit sphere above which its surface bends both ways; 32-bit normals are off by less than a tenth of it. */
export const bentBothWays = 1e-6;
/** Below this area (square metres) a triangle's texture tells nothing of its way round. */
export const tellingArea = 1e-7;
/** Below this squared size a triangle of texture is a point. */
export const noTexture = 1e-18;
/** Sines above this are surely of one sign in plain arithmetic; below it they are told exactly. */
export const sureSign = 1e-14;
/** An ear less round than this is taken only where there is no other. */
export const roundEar = 1e-3;
/** Rounded ears that are equal differ by no more. */
export const earsAlike = 1e-15;
/** The steps in which two loops meet in a corner, as areas: less is on the line. */
export const onLine = 1e-15;

// What is drawn.

/** Corners of one vertex that are drawn nearer than this are drawn in one place: a hundredth of a millimetre. */
export const sameDrawn = 1e-5;
/** And whose normals differ by less are shaded alike. */
export const sameShade = 1e-3;
/** Texture whose lengths are off by less, as a share, is at true scale. */
export const scaled = 1e-3;
/** Lengths of texture may be off by so much, since they are kept in 32 bits. */
export const scaleGrain = 1e-6;

// What is cut.

/** A normal at a corner agrees with its face's own at least so well, as the cosine between them; what strays farther is shaded as what it is not. */
export const leastAgreement = 0.3;
/** Needles lower than this are not left: a hundredth of a millimetre. */
export const needle = 1e-5;
/** Rows of quads that pass a corner nearer than this would leave needles: a tenth of a millimetre. */
export const passing = 1e-4;
/** By so much are joined what would touch in a point: a tenth of a millimetre, which no one sees. */
export const hair = 1e-4;
/** The library of the solid path takes points nearer than this for one … */
export const solidGrain = 1e-7;
/** … gives surfaces back to within this … */
export const solidSimplified = 5e-6;
/** … and its points, matched with ours, are this near. */
export const solidMatched = 3e-6;

// What is read and written.

/** A polygon whose points stray from a plane by less is flat: half of what a file must be true to. */
export const flatPolygon = 5e-5;
/** A sheet that is brought in strays from a plane by less without a word, a tenth of a millimetre. */
export const flatSheet = 1e-4;
/** Sheets that are brought in whose edges are nearer than this are one. */
export const sheetsMeet = 2e-4;
/** Walls whose ends are nearer than this meet: two millimetres, for they are drawn by hand. */
export const wallsMeet = 0.002;
