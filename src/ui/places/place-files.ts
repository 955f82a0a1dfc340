import { drawerFromCsv } from '@/core/doc/drawer-csv';
import { type Library, type LibraryChange, librarySchema, noChange, SHELVES, type Shelf } from '@/core/doc/library';
import { describeIssues } from '@/core/doc/refusal';

/** Largest file of bits, machines, materials or recipes that is read, bytes. */
const LARGEST = 4e6;

/** A shelf as JSON text, as shelfFromFile reads it. */
export const shelfToJson = (library: Library, shelf: Shelf): string =>
  `${JSON.stringify({ [shelf]: library[shelf] }, null, 2)}\n`;

/** Sends a text to the person as a file. */
export function download(text: string, name: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** What a file puts into the shop: JSON of any shelves, or a table of bits. @throws Error in one sentence, naming the file */
export async function shelfFromFile(file: File): Promise<LibraryChange> {
  const refuse = (why: string) => new Error(`${file.name}: ${why}`);
  if (file.size > LARGEST)
    throw refuse(`it has ${(file.size / 1e6).toFixed(1)} MB, at most ${LARGEST / 1e6} MB are read`);
  const text = await file.text();
  const change = noChange();
  if (/\.csv$/i.test(file.name)) {
    try {
      change.put.cutters = drawerFromCsv(text);
    } catch (e) {
      throw refuse((e as Error).message);
    }
    return change;
  }
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw refuse('it is neither JSON nor a table that ends in .csv; choose a file that a shop has written out');
  }
  const read = librarySchema.partial().safeParse(raw);
  if (!read.success) throw refuse(describeIssues(read.error, raw));
  Object.assign(change.put, read.data);
  if (SHELVES.every((s) => change.put[s].length === 0))
    throw refuse('it holds no bits, machines, materials or recipes');
  return change;
}
