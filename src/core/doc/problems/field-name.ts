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

/** Fields that the trade writes otherwise than their names in the document would read. */
const WORDS: Record<string, string> = { stickOut: 'stick-out', rpm: 'speed in rpm', cell: 'cell of the grid' };

const inWords = (key: PropertyKey) => WORDS[String(key)] ?? String(key).replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

/** What a person calls a field of the document: "ramp angle of pass 3, setup Face". Things with a name go by it, others by their place. */
export function fieldName(document: unknown, path: PropertyKey[]): string {
  const things: string[] = [];
  let field: string[] = [];
  let value: unknown = document;
  for (const [i, key] of path.entries()) {
    const entry = ENTRIES[String(path[i - 1])];
    const all = value;
    value = (value as Record<PropertyKey, unknown> | null | undefined)?.[key];
    if (typeof key === 'number' && entry !== undefined) {
      // A lone board or setup needs no telling.
      const lone = (entry === 'board' || entry === 'setup') && Array.isArray(all) && all.length === 1;
      const { name } = (value ?? {}) as { name?: unknown };
      if (!lone) things.unshift(`${entry} ${typeof name === 'string' && name !== '' ? name : key + 1}`);
      field = [];
    } else field.push(typeof key === 'number' ? String(key + 1) : inWords(key));
  }
  return [field.join(' ') || 'the entry', ...(things.length > 0 ? [`of ${things.join(', ')}`] : [])].join(' ');
}
