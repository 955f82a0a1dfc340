/** What an element of an SVG drawing is painted with, handed down to what it holds. */
export interface Paint {
  fill: string;
  stroke: string;
  /** Of its lines, in its own units; null where nothing says it. */
  width: number | null;
  hidden: boolean;
}

/** What an SVG begins with (SVG 2, chapter 13: filled black, not stroked). */
export const FIRST_PAINT: Paint = { fill: 'black', stroke: 'none', width: null, hidden: false };

/** Declarations of a style sheet by their plain selectors: an element, a class or an id. Others are not looked at. */
export type Rules = Map<string, Record<string, string>>;

function declarations(text: string): Record<string, string> {
  const out: Record<string, string> = {};
  for (const part of text.split(';')) {
    const at = part.indexOf(':');
    if (at > 0) out[part.slice(0, at).trim().toLowerCase()] = part.slice(at + 1).trim();
  }
  return out;
}

/** Rules of a style sheet's text. */
export function readRules(text: string, rules: Rules = new Map()): Rules {
  const plain = text.replace(/\/\*[\s\S]*?\*\//g, '');
  for (const [, selectors, body] of plain.matchAll(/([^{}@]+)\{([^{}]*)\}/g))
    for (const s of selectors.split(',').map((e) => e.trim()))
      if (/^[.#]?[\w-]+$/.test(s)) rules.set(s, { ...rules.get(s), ...declarations(body) });
  return rules;
}

/**
 * The paint of an element: what it inherits, its attributes, the style sheet's rules and its own style, each over the one before
 * (CSS cascade, as far as plain selectors go).
 */
export function paintOf(tag: string, a: Record<string, string>, rules: Rules, above: Paint): Paint {
  const classes = (a.class ?? '').split(/\s+/).filter((c) => c !== '');
  const said: Record<string, string> = { ...a, ...rules.get(tag) };
  for (const c of classes) Object.assign(said, rules.get(`.${c}`));
  Object.assign(said, a.id === undefined ? {} : rules.get(`#${a.id}`), declarations(a.style ?? ''));
  const or = (value: string | undefined, other: string) => (value === undefined || value === 'inherit' ? other : value);
  const width = Number.parseFloat(said['stroke-width'] ?? '');
  return {
    fill: or(said.fill, above.fill),
    stroke: or(said.stroke, above.stroke),
    width: Number.isFinite(width) && width >= 0 ? width : above.width,
    hidden: above.hidden || said.display === 'none' || said.visibility === 'hidden',
  };
}
