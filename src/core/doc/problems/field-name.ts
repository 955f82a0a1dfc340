import type { Job } from '../job';

/** Lists of the document, and what an entry of one is called. */
const ENTRIES: Record<string, string> = {
  boards: 'board',
  setups: 'setup',
  layers: 'layer',
  passes: 'pass',
  cutters: 'bit',
  gaps: 'distance',
  holding: 'holding',
};

const inWords = (key: PropertyKey) => String(key).replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

/** What a person calls a field of the document: "ramp angle of pass 3, setup Face". Things with a name go by it, others by their place. */
export function fieldName(job: Job, path: PropertyKey[]): string {
  const things: string[] = [];
  let field: string[] = [];
  let value: unknown = job;
  for (const [i, key] of path.entries()) {
    const entry = ENTRIES[String(path[i - 1])];
    const all = value;
    value = (value as Record<PropertyKey, unknown> | null | undefined)?.[key];
    if (typeof key === 'number' && entry !== undefined) {
      // A lone board or setup needs no telling.
      const lone = (entry === 'board' || entry === 'setup') && (all as unknown[]).length === 1;
      const { name } = (value ?? {}) as { name?: unknown };
      if (!lone) things.unshift(`${entry} ${typeof name === 'string' && name !== '' ? name : key + 1}`);
      field = [];
    } else field.push(typeof key === 'number' ? String(key + 1) : inWords(key));
  }
  return [field.join(' ') || 'the entry', ...(things.length > 0 ? [`of ${things.join(', ')}`] : [])].join(' ');
}
