import { XMLParser } from 'fast-xml-parser';
import svgpath from 'svgpath';
import { type Drawing, makeDrawing } from './drawing';
import { SourceError } from './source-error';

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
const UNSEEN = ['defs', 'clipPath', 'mask', 'marker', 'pattern', 'symbol', 'linearGradient', 'radialGradient'];
/** Deepest that groups may lie in each other. */
const DEEPEST = 60;

type Node = Record<string, unknown> & { ':@'?: Record<string, string> };

function lengthOf(text: string | undefined): number | null {
  const m = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
  const unit = m && UNITS[m[2].toLowerCase()];
  return m && unit ? Number(m[1]) * unit : null;
}

const numbers = (text: string | undefined) =>
  (text ?? '').match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi)?.map(Number) ?? [];

/** The path data of an element, in its own units; null for what draws no lines. */
function dataOf(tag: string, a: Record<string, string>): string | null {
  const n = (key: string, other = 0) => Number.parseFloat(a[key] ?? '') || other;
  switch (tag) {
    case 'path':
      return a.d ?? null;
    case 'line':
      return `M ${n('x1')} ${n('y1')} L ${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const p = numbers(a.points);
      if (p.length < 4) return null;
      const rest = Array.from({ length: Math.floor(p.length / 2) - 1 }, (_, i) => `L ${p[2 * i + 2]} ${p[2 * i + 3]}`);
      return `M ${p[0]} ${p[1]} ${rest.join(' ')}${tag === 'polygon' ? ' Z' : ''}`;
    }
    case 'rect': {
      const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
      const rx = Math.min(w / 2, n('rx', n('ry')));
      const ry = Math.min(h / 2, n('ry', n('rx')));
      if (rx <= 0 || ry <= 0) return `M ${x} ${y} h ${w} v ${h} h ${-w} Z`;
      const arc = (dx: number, dy: number) => `a ${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M ${x + rx} ${y} h ${w - 2 * rx} ${arc(rx, ry)} v ${h - 2 * ry} ${arc(-rx, ry)} h ${2 * rx - w} ${arc(-rx, -ry)} v ${2 * ry - h} ${arc(rx, -ry)} Z`;
    }
    case 'circle':
    case 'ellipse': {
      const [cx, cy] = [n('cx'), n('cy')];
      const rx = tag === 'circle' ? n('r') : n('rx');
      const ry = tag === 'circle' ? n('r') : n('ry');
      return `M ${cx - rx} ${cy} a ${rx} ${ry} 0 1 1 ${2 * rx} 0 a ${rx} ${ry} 0 1 1 ${-2 * rx} 0 Z`;
    }
    default:
      return null;
  }
}

/**
 * Reads the lines of an SVG drawing: paths, lines, polygons, rectangles, circles and ellipses with all their transforms. Its size in
 * mm follows from width, height and viewBox; without a unit a pixel is 1/96 in (CSS Values, section 6.2).
 * @throws SourceError naming the file
 */
export function readSvg(text: string, file: string): { drawing: Drawing; notes: string[] } {
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
  const own = root[':@'] ?? {};
  const box = numbers(own.viewBox);
  const [w, h] = [lengthOf(own.width), lengthOf(own.height)];
  const notes: string[] = [];
  let [kx, ky] = [UNITS.px, UNITS.px];
  if (box.length === 4 && box[2] > 0 && box[3] > 0) {
    if (w && h) [kx, ky] = [w / box[2], h / box[3]];
    else if (w) kx = ky = w / box[2];
  } else if (!w) notes.push('says no size; a pixel is taken as 1/96 in');
  const scale = `scale(${kx} ${ky})`;
  const parts: string[] = [];
  const left = new Set<string>();
  let pen = 0;
  const walk = (nodes: Node[], transforms: string[], stroke: string | undefined, depth: number) => {
    if (depth > DEEPEST) throw new SourceError(`${file}: has groups ${depth} deep; ungroup it`);
    for (const node of nodes) {
      const tag = Object.keys(node).find((k) => k !== ':@');
      if (!tag || tag.startsWith('#') || tag.startsWith('?')) continue;
      const a = node[':@'] ?? {};
      if (UNSEEN.includes(tag) || /display:\s*none/.test(a.style ?? '') || a.display === 'none') continue;
      const chain = a.transform ? [...transforms, a.transform] : transforms;
      const width = a['stroke-width'] ?? /stroke-width:\s*([^;]+)/.exec(a.style ?? '')?.[1] ?? stroke;
      if (['text', 'image', 'use', 'foreignObject'].includes(tag)) left.add(tag);
      const data = dataOf(tag, a);
      if (data) {
        let path = svgpath(data);
        const err = (path as unknown as { err?: string }).err;
        if (err) throw new SourceError(`${file}: a ${tag} cannot be read (${err}); redraw it`);
        // The innermost transform comes first.
        for (const t of [...chain].reverse()) path = path.transform(t);
        parts.push(path.transform(scale).abs().round(4).toString());
        pen = Math.max(pen, (Number.parseFloat(width ?? '') || 0) * kx);
      }
      const kids = node[tag];
      if (Array.isArray(kids)) walk(kids as Node[], chain, width, depth + 1);
    }
  };
  walk((root.svg as Node[]) ?? [], own.transform ? [own.transform] : [], own['stroke-width'], 0);
  if (left.size > 0) notes.push(`what is not lines is left out: ${[...left].join(', ')}`);
  if (parts.length === 0)
    throw new SourceError(`${file}: there are no lines in it; turn text and images into paths first`);
  return { drawing: makeDrawing(parts.join(' '), pen > 0 ? pen : null, file), notes };
}
