/** Largest JSON that is read, bytes: a document of many layers has some hundred thousand. */
export const JSON_LIMIT = 8e6;

/** Deepest that lists and objects may lie in each other; a document needs twelve. */
const DEEPEST = 64;

/** How deep a JSON text nests, without reading it: brackets outside of strings. */
function depthOf(text: string): number {
  let depth = 0;
  let most = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 0x22) {
      for (i++; i < text.length && text.charCodeAt(i) !== 0x22; i++) if (text.charCodeAt(i) === 0x5c) i++;
    } else if (c === 0x5b || c === 0x7b) most = Math.max(most, ++depth);
    else if (c === 0x5d || c === 0x7d) depth--;
  }
  return most;
}

/** Reads a JSON text that is neither too long nor nested too deep. @param refuse makes the error of what is the matter with it */
export function readJson(text: string, refuse: (why: string) => Error): unknown {
  if (text.length > JSON_LIMIT) throw refuse(`is larger than ${JSON_LIMIT / 1e6} MB`);
  if (depthOf(text) > DEEPEST) throw refuse(`nests more than ${DEEPEST} levels deep`);
  try {
    return JSON.parse(text);
  } catch {
    throw refuse('is not JSON');
  }
}
