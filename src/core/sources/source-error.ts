/** A relief file that cannot be used; the message says in one sentence what is wrong and what would do. */
export class SourceError extends Error {}

/** Largest relief file taken, bytes. */
export const MAX_SOURCE_BYTES = 2 * 1024 ** 3;
/** Most triangles of a mesh. */
export const MAX_TRIANGLES = 5_000_000;
/** Most pixels of an image. */
export const MAX_PIXELS = 100_000_000;
/** Longer side to which an image is averaged down when it is larger: over 300 mm that is a pixel every 0.1 mm. */
export const WORK_PIXELS = 3072;
