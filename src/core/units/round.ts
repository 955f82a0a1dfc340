/** A length as a document keeps it: to a tenth of a micrometre, mm. */
export const clean = (v: number) => Number(v.toFixed(4));
