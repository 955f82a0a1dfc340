/** Corners of the triangles, nine floats each, in the file's own unit. */
export interface Mesh {
  triangles: Float32Array;
}
