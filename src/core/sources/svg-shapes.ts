/** Numbers in a text, as lists of SVG hold them. */
export const numbersIn = (text: string | undefined): number[] =>
  (text ?? '').match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi)?.map(Number) ?? [];

/** The path data of an element, in its own units; null for what draws no lines. */
export function pathDataOf(tag: string, a: Record<string, string>): string | null {
  const n = (key: string, other = 0) => Number.parseFloat(a[key] ?? '') || other;
  switch (tag) {
    case 'path':
      return a.d ?? null;
    case 'line':
      return `M ${n('x1')} ${n('y1')} L ${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const p = numbersIn(a.points);
      if (p.length < 4) return null;
      const rest = Array.from({ length: Math.floor(p.length / 2) - 1 }, (_, i) => `L ${p[2 * i + 2]} ${p[2 * i + 3]}`);
      return `M ${p[0]} ${p[1]} ${rest.join(' ')}${tag === 'polygon' ? ' Z' : ''}`;
    }
    case 'rect': {
      const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
      if (w <= 0 || h <= 0) return null;
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
      if (rx <= 0 || ry <= 0) return null;
      return `M ${cx - rx} ${cy} a ${rx} ${ry} 0 1 1 ${2 * rx} 0 a ${rx} ${ry} 0 1 1 ${-2 * rx} 0 Z`;
    }
    default:
      return null;
  }
}
