/** What the WebAssembly module offers; addresses and lengths in bytes. */
export interface KernelExports {
  readonly memory: WebAssembly.Memory;
  heapBase(): number;
  resamplePlane(
    source: number,
    sourceStride: number,
    sourceWidth: number,
    sourceHeight: number,
    target: number,
    targetStride: number,
    targetWidth: number,
    targetHeight: number,
    columnStarts: number,
    columnWeights: number,
    columnTaps: number,
    rowStarts: number,
    rowWeights: number,
    rowTaps: number,
    left: number,
    right: number,
    scratch: number,
  ): void;
  crispPlane(
    source: number,
    sourceStride: number,
    sourceWidth: number,
    sourceHeight: number,
    x: number,
    y: number,
    width: number,
    height: number,
    target: number,
    targetStride: number,
    model: number,
    shifts: number,
    scratch: number,
  ): number;
  steadyPlane(
    source: number,
    sourceStride: number,
    width: number,
    height: number,
    left: number,
    top: number,
    copy: number,
    copyStride: number,
    copyHeight: number,
    tileWidth: number,
    tileHeight: number,
    across: number,
    firstColumn: number,
    firstRow: number,
    endColumn: number,
    endRow: number,
    strict: number,
    states: number,
    boxes: number,
  ): void;
  fillFilter(
    length: number,
    origin: number,
    span: number,
    count: number,
    mirror: number,
    taps: number,
    lobes: number,
    steps: number,
    kernel: number,
    exact: number,
    starts: number,
    weights: number,
  ): void;
  warpPlane(
    source: number,
    sourceStride: number,
    sourceWidth: number,
    sourceHeight: number,
    target: number,
    targetStride: number,
    targetWidth: number,
    targetHeight: number,
    ax: number,
    bx: number,
    cx: number,
    ay: number,
    by: number,
    cy: number,
    weights: number,
  ): void;
  keyAlpha(
    u: number,
    v: number,
    wallU: number,
    wallV: number,
    alpha: number,
    count: number,
    inner: number,
    outer: number,
    across: number,
  ): void;
  halvePlane(source: number, stride: number, width: number, height: number, target: number): void;
  guideAlpha(
    guide: number,
    alpha: number,
    width: number,
    height: number,
    calm: number,
    slopes: number,
    offsets: number,
    states: number,
    scratch: number,
  ): void;
  refineAlpha(
    luma: number,
    stride: number,
    width: number,
    height: number,
    slopes: number,
    offsets: number,
    states: number,
    edge: number,
    alpha: number,
  ): void;
  unmixPlane(
    source: number,
    wall: number,
    alpha: number,
    count: number,
    pivot: number,
    most: number,
    target: number,
  ): void;
  dividePlane(plane: number, weights: number, count: number, pivot: number): void;
  leastPlane(plane: number, other: number, count: number): void;
  steadyAlpha(
    alpha: number,
    before: number,
    luma: number,
    lumaBefore: number,
    count: number,
    fresh: number,
  ): void;
  solveRoom(width: number, height: number): number;
  solveAlpha(
    y: number,
    u: number,
    v: number,
    wallY: number,
    wallU: number,
    wallV: number,
    alpha: number,
    width: number,
    height: number,
    left: number,
    top: number,
    light: number,
    scratch: number,
  ): void;
  tintPlane(
    chroma: number,
    stride: number,
    width: number,
    height: number,
    luma: number,
    lumaStride: number,
    lumaWidth: number,
    lumaHeight: number,
    amount: number,
  ): void;
  suppressSpill(
    u: number,
    v: number,
    count: number,
    directionU: number,
    directionV: number,
    allowed: number,
  ): void;
  spreadPlane(
    plane: number,
    width: number,
    height: number,
    radius: number,
    grow: number,
    scratch: number,
  ): void;
  fadeOutside(
    plane: number,
    stride: number,
    width: number,
    height: number,
    centerX: number,
    centerY: number,
    inner: number,
    outer: number,
    value: number,
    strength: number,
  ): void;
  layPlane(
    target: number,
    targetStride: number,
    source: number,
    sourceStride: number,
    alpha: number,
    alphaStride: number,
    width: number,
    height: number,
    pivot: number,
  ): void;
  adjustPlane(
    plane: number,
    stride: number,
    alpha: number,
    alphaStride: number,
    width: number,
    height: number,
    factor: number,
    offset: number,
    pivot: number,
  ): void;
  multiplyLuma(
    target: number,
    targetStride: number,
    source: number,
    sourceStride: number,
    alpha: number,
    alphaStride: number,
    width: number,
    height: number,
    screen: number,
  ): void;
  multiplyChroma(
    target: number,
    targetStride: number,
    source: number,
    sourceStride: number,
    alpha: number,
    alphaStride: number,
    width: number,
    height: number,
    screen: number,
    targetLuma: number,
    targetLumaStride: number,
    sourceLuma: number,
    sourceLumaStride: number,
  ): void;
  mosaicPlane(plane: number, stride: number, width: number, height: number, block: number): void;
  planarToRgba(y: number, u: number, v: number, width: number, height: number, rgba: number): void;
  blendPlane(
    target: number,
    targetStride: number,
    source: number,
    sourceStride: number,
    alpha: number,
    alphaStride: number,
    width: number,
    height: number,
    opacity: number,
    light: number,
    lightStride: number,
    lightStep: number,
  ): void;
  backPlane(plane: number, alpha: number, count: number, value: number, pivot: number): void;
  sameRows(
    a: number,
    aStride: number,
    b: number,
    bStride: number,
    width: number,
    rows: number,
  ): number;
  takeRows(
    source: number,
    target: number,
    width: number,
    rows: number,
    tileWidth: number,
    marks: number,
  ): void;
  copyRows(
    source: number,
    sourceStride: number,
    target: number,
    targetStride: number,
    width: number,
    rows: number,
  ): void;
  fillPlane(target: number, stride: number, width: number, height: number, value: number): void;
  mixPlane(target: number, source: number, count: number, weight: number): void;
  multiplyPlane(target: number, by: number, count: number, pivot: number): void;
  boxBlurPlane(
    plane: number,
    stride: number,
    width: number,
    height: number,
    radius: number,
    passes: number,
    scratch: number,
  ): void;
  markChanges(
    a: number,
    b: number,
    stride: number,
    width: number,
    height: number,
    tileWidth: number,
    tileHeight: number,
    marks: number,
  ): number;
  countChanges(
    a: number,
    aStride: number,
    b: number,
    bStride: number,
    width: number,
    height: number,
    least: number,
    counts: number,
  ): number;
  matchLook(
    plane: number,
    stride: number,
    columns: number,
    rows: number,
    points: number,
    count: number,
    clip: number,
    limit: number,
    hits: number,
    most: number,
  ): number;
  rgbaToPlanar(
    rgba: number,
    width: number,
    height: number,
    y: number,
    u: number,
    v: number,
    a: number,
    chromaA: number,
  ): void;
}

type Kernels = Omit<KernelExports, 'memory'>;

/**
 * Every kernel with the number of its arguments: the compiler holds it against the types above, a
 * test against the WebAssembly module's own exports.
 */
export const KERNEL_ARITIES: {
  readonly [K in keyof Kernels]: Parameters<Kernels[K]>['length'];
} = {
  heapBase: 0,
  resamplePlane: 17,
  crispPlane: 13,
  steadyPlane: 19,
  fillFilter: 12,
  warpPlane: 15,
  keyAlpha: 9,
  halvePlane: 5,
  guideAlpha: 9,
  refineAlpha: 9,
  unmixPlane: 7,
  dividePlane: 4,
  leastPlane: 3,
  steadyAlpha: 6,
  solveRoom: 2,
  solveAlpha: 13,
  tintPlane: 9,
  suppressSpill: 6,
  spreadPlane: 6,
  fadeOutside: 10,
  layPlane: 9,
  adjustPlane: 9,
  multiplyLuma: 9,
  multiplyChroma: 13,
  mosaicPlane: 5,
  planarToRgba: 6,
  blendPlane: 12,
  backPlane: 5,
  sameRows: 6,
  takeRows: 6,
  copyRows: 6,
  fillPlane: 5,
  mixPlane: 4,
  multiplyPlane: 4,
  boxBlurPlane: 7,
  markChanges: 8,
  countChanges: 8,
  matchLook: 10,
  rgbaToPlanar: 8,
};
