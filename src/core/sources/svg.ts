import { XMLParser } from 'fast-xml-parser';
import svgpath from 'svgpath';
import { flattenLines, readSvgPath } from '../outline/flatten';
import { type Drawing, type Drawn, makeDrawing, penOf } from './drawing';
import { SourceError } from './source-error';
import { FIRST_PAINT, type Paint, paintOf, type Rules, readRules } from './svg-paint';
import { numbersIn, pathDataOf } from './svg-shapes';

/** Units of SVG lengths in mm (CSS: 96 pixels an inch). */
const UNITS: Record<string, number> = {
  '': 25.4 / 96,
  px: 25.4 / 96,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  in: 25.4,
  cm: 10,
  mm: 1,
};
/** What holds things that are not shown by themselves. */
const UNSEEN = new Set([
  'defs',
  'clipPath',
  'mask',
  'marker',
  'pattern',
  'symbol',
  'linearGradient',
  'radialGradient',
  'style',
  'title',
  'desc',
  'metadata',
  'script',
]);
/** What can be seen and is no line. */
const NO_LINES = new Set(['text', 'image', 'foreignObject', 'video', 'canvas', 'iframe']);
/** Deepest that groups and uses may lie in each other, and most elements that are looked at, with every use of them. */
const DEEPEST = 60;
const MOST_ELEMENTS = 50_000;

type Node = Record<string, unknown> & { ':@'?: Record<string, string> };

function lengthOf(text: string | undefined): number | null {
  const m = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
  const unit = m && UNITS[m[2].toLowerCase()];
  return m && unit ? Number(m[1]) * unit : null;
}

const tagOf = (node: Node) => Object.keys(node).find((k) => k !== ':@') ?? '';
const kidsOf = (node: Node): Node[] => {
  const kids = node[tagOf(node)];
  return Array.isArray(kids) ? (kids as Node[]) : [];
};

/** What a viewBox does to what lies in it; `meet` and `none` of preserveAspectRatio, middle of the box. */
function viewTransform(a: Record<string, string>, width: number | null, height: number | null): string[] {
  const [x, y, w, h] = numbersIn(a.viewBox);
  if (!(w > 0 && h > 0)) return [];
  let [kx, ky] = [(width ?? w) / w, (height ?? h) / h];
  if (!/^\s*none/.test(a.preserveAspectRatio ?? '')) kx = ky = Math.min(kx, ky);
  const [dx, dy] = [((width ?? w) - kx * w) / 2, ((height ?? h) - ky * h) / 2];
  return [`translate(${dx} ${dy}) scale(${kx} ${ky}) translate(${-x} ${-y})`];
}

/** A drawing on its way: what its elements have drawn so far. */
class SvgReader {
  readonly parts: Drawn[] = [];
  readonly left = new Set<string>();
  private readonly named = new Map<string, Node>();
  readonly rules: Rules = new Map();
  private seen = 0;

  constructor(
    private readonly file: string,
    private readonly scale: string,
  ) {}

  private fail(what: string): never {
    throw new SourceError(`${this.file}: ${what}`);
  }

  /** Finds what is named, and the rules of style sheets, wherever they stand. */
  index(nodes: Node[], depth = 0): void {
    if (depth > 4 * DEEPEST) this.fail(`has groups over ${4 * DEEPEST} deep; ungroup it`);
    for (const node of nodes) {
      const id = node[':@']?.id;
      if (id !== undefined && !this.named.has(id)) this.named.set(id, node);
      if (tagOf(node) === 'style')
        readRules(
          kidsOf(node)
            .map((k) => String(k['#text'] ?? ''))
            .join(''),
          this.rules,
        );
      this.index(kidsOf(node), depth + 1);
    }
  }

  walk(nodes: Node[], chain: string[], above: Paint, depth = 0): void {
    if (depth > DEEPEST) this.fail(`has groups over ${DEEPEST} deep, or uses that hold themselves; ungroup it`);
    for (const node of nodes) {
      const tag = tagOf(node);
      if (tag === '' || tag.startsWith('#') || tag.startsWith('?') || UNSEEN.has(tag)) continue;
      if (++this.seen > MOST_ELEMENTS) this.fail(`draws more than ${MOST_ELEMENTS} things; leave some out`);
      const a = node[':@'] ?? {};
      const paint = paintOf(tag, a, this.rules, above);
      if (paint.hidden) continue;
      if (NO_LINES.has(tag)) this.left.add(tag);
      if (a['clip-path'] || a.mask) this.left.add('clipping');
      const own = a.transform ? [...chain, a.transform] : chain;
      if (tag === 'use') this.use(a, own, paint, depth);
      else if (tag === 'svg') this.walk(kidsOf(node), [...own, ...this.inner(a)], paint, depth + 1);
      else {
        this.draw(tag, a, own, paint);
        this.walk(kidsOf(node), own, paint, depth + 1);
      }
    }
  }

  /** Where an svg inside another lies, and what its viewBox does. */
  private inner(a: Record<string, string>): string[] {
    const n = (key: string) => Number.parseFloat(a[key] ?? '') || 0;
    const size = (key: string) => (/%/.test(a[key] ?? '') ? null : n(key) || null);
    return [`translate(${n('x')} ${n('y')})`, ...viewTransform(a, size('width'), size('height'))];
  }

  private use(a: Record<string, string>, chain: string[], paint: Paint, depth: number): void {
    const name = /^#(.+)$/.exec(a.href ?? '')?.[1];
    const target = name === undefined ? undefined : this.named.get(name);
    if (!target) {
      this.left.add(`use of ${name ?? 'another file'}`);
      return;
    }
    const n = (key: string) => Number.parseFloat(a[key] ?? '') || 0;
    const own = [...chain, `translate(${n('x')} ${n('y')})`];
    const tag = tagOf(target);
    if (tag !== 'symbol') {
      this.walk([target], own, paint, depth + 1);
      return;
    }
    const view = viewTransform(target[':@'] ?? {}, n('width') || null, n('height') || null);
    this.walk(kidsOf(target), [...own, ...view], paintOf(tag, target[':@'] ?? {}, this.rules, paint), depth + 1);
  }

  /** The lines of an element: areas where they close, lines of its pen's width where they do not. */
  private draw(tag: string, a: Record<string, string>, chain: string[], paint: Paint): void {
    const data = pathDataOf(tag, a);
    if (!data) return;
    const filled = paint.fill !== 'none' && paint.fill !== 'transparent';
    const stroked = paint.stroke !== 'none' && paint.stroke !== 'transparent' && paint.width !== 0;
    if (!filled && !stroked) {
      this.left.add(`${tag} without paint`);
      return;
    }
    let path = svgpath(data);
    const { err } = path as unknown as { err?: string };
    if (err) this.fail(`a ${tag} cannot be read; redraw it`);
    // The innermost transform comes first.
    const transforms = [this.scale, ...chain].reverse();
    for (const t of transforms) path = path.transform(t);
    const text = path.abs().round(4).toString();
    const pen = penOf((paint.width ?? (stroked ? 1 : 0)) * meanScale(transforms));
    // What closes is an area, filled or drawn around; what does not is a line: a plan is drawn in hairlines, and half of what
    // programs export is filled by default.
    for (const line of text.split(/(?=M)/)) {
      const closed = flattenLines(readSvgPath(line), 0.05).every((l) => l.closed);
      this.parts.push({ d: line, pen: closed ? null : pen });
    }
  }
}

/** How much wider transforms make a pen: the root of what they do to an area. */
function meanScale(innermostFirst: string[]): number {
  let p = svgpath('M0 0L1 0L0 1');
  for (const t of innermostFirst) p = p.transform(t);
  const [x0, y0, x1, y1, x2, y2] = numbersIn(p.abs().toString());
  return Math.sqrt(Math.abs((x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)));
}

function parse(text: string, file: string): Node {
  let tree: Node[];
  try {
    tree = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      processEntities: false,
      removeNSPrefix: true,
    }).parse(text, true) as Node[];
  } catch {
    throw new SourceError(`${file}: begins like an SVG drawing but is damaged or cut short; save it again`);
  }
  const root = tree.find((n) => 'svg' in n);
  if (!root) throw new SourceError(`${file}: has no svg element; choose an SVG drawing`);
  return root;
}

/**
 * Reads an SVG drawing: paths, lines, polygons, rectangles, circles and ellipses, groups, uses and symbols, with all their transforms.
 * What closes is an area, what does not a line of its pen's width; both are kept side by side. Its size in mm follows from width,
 * height and viewBox; without a unit a pixel is 1/96 in (CSS Values, section 6.2).
 * @throws SourceError naming the file
 */
export function readSvg(text: string, file: string): { drawing: Drawing; notes: string[] } {
  const root = parse(text, file);
  const own = root[':@'] ?? {};
  const box = numbersIn(own.viewBox);
  const [w, h] = [lengthOf(own.width), lengthOf(own.height)];
  const notes: string[] = [];
  let [kx, ky] = [UNITS.px, UNITS.px];
  if (box.length === 4 && box[2] > 0 && box[3] > 0) {
    if (w && h) [kx, ky] = [w / box[2], h / box[3]];
    else if (w) kx = ky = w / box[2];
  } else if (!w) notes.push('says no size; a pixel is taken as 1/96 in');
  const reader = new SvgReader(file, `scale(${kx} ${ky})`);
  reader.index([root]);
  reader.walk(kidsOf(root), own.transform ? [own.transform] : [], paintOf('svg', own, reader.rules, FIRST_PAINT));
  const left = [...reader.left].slice(0, 12);
  if (left.length > 0) notes.push(`what is not lines is left out: ${left.join(', ')}`);
  if (reader.parts.length === 0)
    throw new SourceError(`${file}: there are no lines in it; turn text and images into paths first`);
  return { drawing: makeDrawing(reader.parts, true, file), notes };
}
