import { cutModel, prove } from '@yard-arch/core';
import { cutPlainSolids, plainSolids, solidLibrary } from '@yard-arch/core/solid';
import { curvedFacade } from '@yard-arch/demo';
const lib = await solidLibrary();
const f={segmentsPerHalfCircle:24};
const d = curvedFacade(160);
for (let i=0;i<12;i++){const t=performance.now(); cutModel(d,undefined,f); console.log('full',(performance.now()-t).toFixed(0));}
let m=cutModel(d,undefined,f); for(let i=0;i<8;i++){const o=d.openings.o80!; const e={...d,openings:{...d.openings,o80:{...o,along:{from:'start' as const,distance:o.along.distance+0.01*(i+1)}}}}; const t=performance.now(); m=cutModel(e,m,f); console.log('recut',(performance.now()-t).toFixed(1), m.cuts.get('facade')!.statuses[80]!.state);}
const c=m.cuts.get('facade')!; console.log(c.path,prove(c.mesh).closed,prove(c.mesh).volume);
const s=plainSolids(c.sheet,c.placed); const t=performance.now(); const r=cutPlainSolids(lib,s); console.log('manifold',(performance.now()-t).toFixed(0),r);
