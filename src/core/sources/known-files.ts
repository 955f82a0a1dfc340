/** Beginnings of files that are no relief, with what they are and what would do. */
const KNOWN: { at?: number; text: string; is: string; do: string }[] = [
  { text: 'BM', is: 'a BMP picture', do: 'save it as PNG' },
  { text: 'ftypavif', at: 4, is: 'an AVIF picture', do: 'save it as PNG' },
  { text: 'ftyphei', at: 4, is: 'an HEIC photo', do: 'save it as JPEG or PNG' },
  { text: 'ftypmif', at: 4, is: 'an HEIC photo', do: 'save it as JPEG or PNG' },
  { text: '8BPS', is: 'a layered picture of a paint program', do: 'save it as PNG' },
  { text: '%PDF', is: 'a PDF page', do: 'save its drawing as SVG, or its picture as PNG' },
  { text: '%!PS', is: 'a PostScript page', do: 'save its drawing as SVG' },
  { text: 'ISO-10303-21', is: 'a STEP model of surfaces', do: 'export it as STL or 3MF' },
  { text: 'AC10', is: 'a DWG drawing', do: 'save it as DXF' },
  { text: 'glTF', is: 'a glTF model', do: 'export it as STL, OBJ or 3MF' },
  { text: 'Rar!', is: 'an archive', do: 'unpack it and choose the model in it' },
  { text: '7z\u00bc\u00af', is: 'an archive', do: 'unpack it and choose the model in it' },
  { text: '\u001f\u008b', is: 'a packed file', do: 'unpack it and choose the model in it' },
  { text: '<!DOCTYPE html', is: 'a web page', do: 'fetch the file itself, not the page about it' },
  { text: '<html', is: 'a web page', do: 'fetch the file itself, not the page about it' },
  { text: '{', is: 'a JSON text', do: 'choose a model, an image or a drawing' },
];

const ascii = (bytes: Uint8Array, from: number, n: number) => String.fromCharCode(...bytes.subarray(from, from + n));

/** What a file is that is no relief, and what would do, in words; null where its beginning says nothing. */
export function knownAs(bytes: Uint8Array): string | null {
  const start = ascii(bytes, 0, 32).trimStart();
  for (const k of KNOWN) {
    const found = k.at === undefined ? start.startsWith(k.text) : ascii(bytes, k.at, k.text.length) === k.text;
    if (found) return `is ${k.is}; ${k.do}`;
  }
  return null;
}

/** Whether the first bytes are text of some kind: no zero, and hardly a control character. */
export function looksLikeText(bytes: Uint8Array): boolean {
  const head = bytes.subarray(0, 512);
  let odd = 0;
  for (const b of head)
    if (b === 0) return false;
    else if (b < 9 || (b > 13 && b < 32)) odd++;
  return odd * 50 <= head.length;
}
