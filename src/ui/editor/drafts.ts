import { z } from '@/core/units/zod';
import type { Browser } from './ports';

const kept = z.record(z.string(), z.object({ of: z.string(), text: z.string(), error: z.string().nullable() }));
type Kept = z.infer<typeof kept>;

/** A text that is no value yet, and why not once it was tried. */
export interface Draft {
  text: string;
  error: string | null;
}

/** Longest text and most fields that are kept. */
const LONGEST = 2000;
const MOST = 100;

/** Texts of fields that are not values yet, by the names of their fields: a reload brings them back. */
export class Drafts {
  private readonly texts: Kept;

  /** @param name under which they are kept over a reload */
  constructor(
    private readonly memory: Browser['memory'],
    private readonly name: string,
  ) {
    this.texts = this.read();
  }

  private read(): Kept {
    try {
      return kept.parse(JSON.parse(this.memory.get(this.name) ?? '{}'));
    } catch {
      return {};
    }
  }

  /** The text of a field that shows a value; null when it is that value, or when the value has changed since. */
  get(field: string, value: string): Draft | null {
    const had = this.texts[field];
    return had && had.of === value ? had : null;
  }

  /** Keeps the text of a field that shows a value; null lets go of it. */
  put(field: string, value: string, draft: Draft | null): void {
    if (draft === null && !this.texts[field]) return;
    delete this.texts[field];
    if (draft !== null && draft.text !== value && draft.text.length <= LONGEST)
      this.texts[field] = { of: value, ...draft };
    const names = Object.keys(this.texts);
    for (const old of names.slice(0, Math.max(0, names.length - MOST))) delete this.texts[old];
    this.memory.put(this.name, Object.keys(this.texts).length === 0 ? null : JSON.stringify(this.texts));
  }
}
