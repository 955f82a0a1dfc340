/** Numbers a segment: x0 y0 z0 x1 y1 z1 and 1 for a rapid. */
export const SEGMENT = 7;
