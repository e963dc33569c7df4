/** What is used of the package that reads DXF. */
declare module 'dxf' {
  export interface DxfVertex {
    x: number;
    y: number;
    bulge?: number;
  }
  /** An entity as it stands in the file; which figures it has depends on its type. */
  export interface DxfEntity {
    type: string;
    layer?: string;
    visible?: boolean;
    paperSpace?: number;
    extrusionZ?: number;
    closed?: boolean;
    polygonMesh?: boolean;
    polyfaceMesh?: boolean;
    vertices?: DxfVertex[];
    start?: DxfVertex;
    end?: DxfVertex;
    x?: number;
    y?: number;
    r?: number;
    startAngle?: number;
    endAngle?: number;
    majorX?: number;
    majorY?: number;
    axisRatio?: number;
    degree?: number;
    knots?: number[];
    weights?: number[];
    controlPoints?: DxfVertex[];
    block?: string;
    scaleX?: number;
    scaleY?: number;
    rotation?: number;
    rowCount?: number;
    columnCount?: number;
    rowSpacing?: number;
    columnSpacing?: number;
  }
  export interface DxfBlock {
    name: string;
    x: number;
    y: number;
    entities: DxfEntity[];
  }
  export function parseString(text: string): {
    header: { insUnits?: number };
    blocks: DxfBlock[];
    entities: DxfEntity[];
  };
}
