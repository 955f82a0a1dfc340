import DxfParser, { type IBlock, type IDxf, type IEntity } from 'dxf-parser';
import { type Drawing, type Drawn, makeDrawing, penOf } from './drawing';
import { joinLines, type Line, type Loose, lineOf, type Point } from './dxf-curves';
import { SourceError } from './source-error';

/** Drawing units of DXF ($INSUNITS) in mm, as far as boards are drawn in them. */
const UNITS: Record<number, number> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  13: 0.001,
  14: 100,
};
/** Chords of arcs and curves lie this near to them, mm. */
const CHORD = 0.005;
/** Ends of lines that are this near to each other are one place, mm. */
const TOUCH = 0.005;
/** Deepest that blocks may hold blocks, and most entities with every block where it is inserted. */
const DEEPEST = 8;
const MOST_ENTITIES = 50_000;

type Blocks = Record<string, IBlock>;

const numberOf = (v: unknown, other: number) => (typeof v === 'number' && Number.isFinite(v) ? v : other);

/** How often an insert puts its block, in rows and columns. */
const timesOf = (e: Loose) =>
  Math.max(1, Math.round(numberOf(e.columnCount, 1))) * Math.max(1, Math.round(numberOf(e.rowCount, 1)));

/** Entities that a list comes to with every block where it is inserted, counted before any is drawn. */
function countOf(entities: IEntity[], blocks: Blocks, known = new Map<string, number>(), depth = 0): number {
  let n = 0;
  for (const entity of entities) {
    const e = entity as Loose;
    n++;
    const block = e.type === 'INSERT' && depth < DEEPEST ? blocks[e.name as string] : undefined;
    if (!block) continue;
    const key = `${e.name} ${depth}`;
    if (!known.has(key)) known.set(key, countOf(block.entities ?? [], blocks, known, depth + 1));
    n += timesOf(e) * known.get(key)!;
  }
  return n;
}

/** A drawing on its way: lines in the drawing's own units, and what was left out. */
class DxfReader {
  readonly lines: Line[] = [];
  readonly left = new Set<string>();
  /** Layers that are off or frozen and have something drawn on them. */
  readonly unseen = new Set<string>();
  private readonly hidden: Set<string>;

  constructor(
    private readonly dxf: IDxf,
    private readonly tolerance: number,
  ) {
    const layers = Object.values(dxf.tables?.layer?.layers ?? {});
    this.hidden = new Set(layers.filter((l) => l.frozen || l.visible === false).map((l) => l.name));
  }

  walk(entities: IEntity[], place: (p: Point) => Point, depth = 0): void {
    for (const entity of entities) {
      const e = entity as Loose;
      if (e.visible === false) this.left.add('invisible entities');
      else if (e.layer !== undefined && this.hidden.has(e.layer)) this.unseen.add(e.layer);
      else if (e.type === 'INSERT') this.insert(e, place, depth);
      else {
        const line = lineOf(e, this.tolerance);
        if (!line) this.left.add(e.type);
        else if (line.length >= 2) this.lines.push(line.map(place));
      }
    }
  }

  private insert(e: Loose, place: (p: Point) => Point, depth: number): void {
    const block = (this.dxf.blocks as Blocks | undefined)?.[e.name as string];
    if (!block || depth >= DEEPEST) {
      this.left.add(block ? 'blocks that hold themselves' : `block ${String(e.name).slice(0, 40)}`);
      return;
    }
    const at = (e.position ?? { x: 0, y: 0 }) as Point;
    const a = (numberOf(e.rotation, 0) * Math.PI) / 180;
    const [sx, sy] = [numberOf(e.xScale, 1), numberOf(e.yScale, 1)];
    const base = (block.position ?? { x: 0, y: 0 }) as Point;
    const [columns, rows] = [e.columnCount, e.rowCount].map((v) => Math.max(1, Math.round(numberOf(v, 1))));
    const [dx, dy] = [numberOf(e.columnSpacing, 0), numberOf(e.rowSpacing, 0)];
    for (let i = 0; i < columns; i++)
      for (let j = 0; j < rows; j++)
        this.walk(
          block.entities ?? [],
          (p) => {
            const [x, y] = [(p.x - base.x) * sx + i * dx, (p.y - base.y) * sy + j * dy];
            return place({ x: at.x + x * Math.cos(a) - y * Math.sin(a), y: at.y + x * Math.sin(a) + y * Math.cos(a) });
          },
          depth + 1,
        );
  }
}

function parse(text: string, file: string): IDxf {
  let dxf: IDxf | null;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch {
    dxf = null;
  }
  if (!dxf)
    throw new SourceError(
      `${file}: begins like a DXF drawing but is damaged or cut short; export it again as ASCII DXF`,
    );
  return dxf;
}

/** The path data of a line, mm, y down; closed where its ends meet. */
function drawn(line: Line, k: number, digits: number): Drawn {
  const num = (v: number) => String(Number((v * k).toFixed(digits)));
  const [first, last] = [line[0], line[line.length - 1]];
  const closed = line.length > 3 && k * Math.hypot(first.x - last.x, first.y - last.y) <= 2 * TOUCH;
  const points = closed ? line.slice(0, -1) : line;
  const d = `M${points.map((p) => `${num(p.x)} ${num(-p.y)}`).join('L')}${closed ? 'Z' : ''}`;
  return { d, pen: closed ? null : penOf(0) };
}

/**
 * Reads the lines of a DXF drawing: lines, polylines with their bulges, arcs, circles, ellipses, splines, and blocks where they are
 * inserted, as far as their layers are shown. Ends that meet are joined; closed lines are areas. Where the drawing says no unit, its
 * numbers are taken as they are, and curves are fine enough for inches.
 * @throws SourceError naming the file
 */
export function readDxf(text: string, file: string): { drawing: Drawing; notes: string[] } {
  const dxf = parse(text, file);
  const unit = UNITS[Number(dxf.header?.$INSUNITS ?? 0)] as number | undefined;
  const k = unit ?? 1;
  const entities = dxf.entities ?? [];
  if (countOf(entities, (dxf.blocks ?? {}) as Blocks) > MOST_ENTITIES)
    throw new SourceError(`${file}: draws more than ${MOST_ENTITIES} things; leave some out`);
  // Finer where it may be inches: 25.4 times as large.
  const fine = unit === undefined ? 1 / UNITS[1] : 1 / k;
  const reader = new DxfReader(dxf, CHORD * fine);
  reader.walk(entities, (p) => p);
  const notes: string[] = [];
  if (reader.unseen.size > 0)
    notes.push(`layers that are off or frozen are left out: ${[...reader.unseen].slice(0, 12).join(', ')}`);
  if (reader.left.size > 0) notes.push(`what is not lines is left out: ${[...reader.left].slice(0, 12).join(', ')}`);
  if (reader.lines.some((l) => l.some((p) => !Number.isFinite(p.x + p.y))))
    throw new SourceError(`${file}: has places that are no numbers; export it again`);
  const parts = joinLines(reader.lines, TOUCH * fine).map((l) => drawn(l, k, unit === undefined ? 5 : 3));
  if (parts.length === 0) throw new SourceError(`${file}: there are no lines in it; choose another drawing`);
  return { drawing: makeDrawing(parts, unit !== undefined, file), notes };
}
