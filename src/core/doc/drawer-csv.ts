import Papa from 'papaparse';
import { type OwnFeed, type ShopBit, shopBitSchema } from './own-feeds';
import { matter } from './refusal';

/** Columns of a cutter drawer's table, with the unit that each figure has there. */
const COLUMNS: { [K in keyof ShopBit]-?: string } = {
  id: 'id',
  number: 'number',
  name: 'name',
  shape: 'shape',
  diameter: 'diameter mm',
  cornerRadius: 'corner radius mm',
  tipDiameter: 'tip diameter mm',
  taperAngle: 'taper degrees a side',
  includedAngle: 'angle degrees in all',
  neckDiameter: 'neck mm',
  neckLength: 'neck length mm',
  fluteLength: 'flute length mm',
  shankDiameter: 'shank mm',
  stickOut: 'sticks out mm',
  holderDiameter: 'holder mm',
  flutes: 'flutes',
  feed: 'feed mm/min',
  plunge: 'plunge mm/min',
  rpm: 'spindle speed rpm',
  maxStepdown: 'most stepdown mm',
  maxPlungeDepth: 'deepest plunge mm',
  helix: 'helix',
  upcut: 'upcut part mm',
  cutsAtCentre: 'cuts at its centre',
  price: 'price',
  runs: 'runs',
  feeds: 'own feeds',
};
const KEYS = Object.keys(COLUMNS) as (keyof ShopBit)[];
/** Columns that tables from before them do not have. */
const LATER = new Set<keyof ShopBit>(['feeds', 'neckDiameter', 'neckLength']);
const WORDS = new Set<keyof ShopBit>(['id', 'name', 'shape', 'helix']);

/** What its owner has found, in one cell: "oak 1400/400 at 16000; pine 1800/500 at 18000", feed and plunge in mm/min at rpm. */
const feedsToCell = (feeds: OwnFeed[]): string =>
  feeds.map((f) => `${encodeURIComponent(f.material)} ${f.feed}/${f.plunge} at ${f.rpm}`).join('; ');
const ENTRY = /^(\S+) ([\d.]+)\/([\d.]+) at ([\d.]+)$/;

/** The entries of such a cell; the text itself where it cannot be read, for the schema to say. */
function feedsFromCell(text: string): OwnFeed[] | string {
  const entries = text
    .split(';')
    .map((e) => e.trim())
    .filter(Boolean)
    .map((e) => ENTRY.exec(e));
  if (entries.some((e) => e === null)) return text;
  return entries.map((e) => ({
    material: decoded(e![1]),
    feed: Number(e![2]),
    plunge: Number(e![3]),
    rpm: Number(e![4]),
  }));
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** Most bits that a table may hold. */
const MOST_BITS = 2000;

/** A table of bits that cannot be taken, with its row and column. */
export class DrawerError extends Error {}

/** A cutter drawer as a table: comma-separated values, a first row of names with their units. */
export function drawerToCsv(cutters: ShopBit[]): string {
  const cell = (c: ShopBit, k: keyof ShopBit) =>
    k === 'cutsAtCentre' ? (c[k] ? 'yes' : 'no') : k === 'feeds' ? feedsToCell(c.feeds ?? []) : (c[k] ?? '');
  const rows = cutters.map((c) => KEYS.map((k) => cell(c, k)));
  return `${Papa.unparse({ fields: KEYS.map((k) => COLUMNS[k]), data: rows }, { newline: '\n' })}\n`;
}

/** A cell of the table as a value of the field; what cannot be one stays as it is, for the schema to say. */
function cellAs(key: keyof ShopBit, cell: string): unknown {
  const text = cell.trim();
  if (WORDS.has(key)) return text;
  if (key === 'cutsAtCentre') return text === 'yes' ? true : text === 'no' ? false : text;
  if (key === 'feeds') return text === '' ? undefined : feedsFromCell(text);
  if (text === '') return key === 'price' ? null : undefined;
  const n = Number(text);
  return Number.isNaN(n) ? text : n;
}

/**
 * The bits of a table as drawerToCsv writes it; columns in any order, those that older tables do not have may be missing. All of them or none.
 * @throws DrawerError that names the row and the column
 */
export function drawerFromCsv(text: string): ShopBit[] {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const broken = errors.find((e) => e.type === 'Quotes');
  if (broken)
    throw new DrawerError(
      `row ${(broken.row ?? 0) + 1}: ${broken.message.toLowerCase()}; mend it and choose the file again`,
    );
  const [head = [], ...rows] = data;
  const names = head.map((h) => h.trim().toLowerCase());
  const missing = KEYS.find((k) => !LATER.has(k) && !names.includes(COLUMNS[k].toLowerCase()));
  if (missing)
    throw new DrawerError(
      `the first row has no column "${COLUMNS[missing]}"; write the drawer out once to see all of them`,
    );
  if (rows.length > MOST_BITS) throw new DrawerError(`it has ${rows.length} bits, at most ${MOST_BITS} go in at once`);
  const seen = new Map<string, number>();
  return rows.map((cells, n) => {
    const raw: Record<string, unknown> = Object.fromEntries(
      KEYS.map((k) => [k, cellAs(k, cells[names.indexOf(COLUMNS[k].toLowerCase())] ?? '')]),
    );
    const read = shopBitSchema.safeParse(raw);
    const row = n + 2;
    if (!read.success) {
      const [issue] = read.error.issues;
      const key = issue.path[0] as keyof ShopBit;
      if (key === 'feeds')
        throw new DrawerError(
          `row ${row}: own feeds is "${cells[names.indexOf(COLUMNS.feeds)]}"; write each material once, with feed and plunge in mm/min and the speed in rpm, like "oak 1400/400 at 16000; pine 1800/500 at 18000"`,
        );
      throw new DrawerError(`row ${row}: ${COLUMNS[key] ?? 'the bit'} ${matter(issue, raw[key])}`);
    }
    const before = seen.get(read.data.id);
    if (before)
      throw new DrawerError(
        `row ${row}: its id "${read.data.id}" is that of row ${before} already; give one of them another`,
      );
    seen.set(read.data.id, row);
    return read.data;
  });
}
