import { formatLength } from './length';

/** A length as a document keeps it: to a tenth of a micrometre, mm. */
export const clean = (v: number) => Number(v.toFixed(4));

/** A length in words. */
export const mm = (v: number) => formatLength(v);
