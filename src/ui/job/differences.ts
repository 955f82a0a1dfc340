import type { Job } from '@/core/doc/job';
import { cardOf } from '../cards/kind-registry';

/** Something in a document that is told by its name. */
interface Named {
  id: string;
}

/** "stockToLeave" as "stock to leave". */
const inWords = (key: string): string => key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

/** The fields of two things that differ, in words; without those that are told by themselves. */
function fieldsOf<T extends object>(a: T, b: T, without: readonly string[] = []): string[] {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  const of = (t: T, key: string) => JSON.stringify((t as Record<string, unknown>)[key]);
  return [...keys].filter((k) => !without.includes(k) && k !== 'id' && of(a, k) !== of(b, k)).map(inWords);
}

/** What two lists differ in: what only one of them has, what both have otherwise, and the order. */
function listed<T extends Named>(
  kind: string,
  mine: readonly T[],
  theirs: readonly T[],
  name: (t: T) => string,
  without: readonly string[] = [],
): string[] {
  const out: string[] = [];
  for (const t of mine) {
    const other = theirs.find((o) => o.id === t.id);
    if (!other) out.push(`${kind} ${name(t)}: only in mine`);
    else {
      const fields = fieldsOf(t, other, without);
      if (fields.length > 0) out.push(`${kind} ${name(t)}: ${fields.join(', ')}`);
    }
  }
  for (const t of theirs) if (!mine.some((o) => o.id === t.id)) out.push(`${kind} ${name(t)}: only in the other`);
  const both = (list: readonly T[], other: readonly T[]) =>
    list.flatMap((t) => (other.some((o) => o.id === t.id) ? [t.id] : [])).join();
  if (both(mine, theirs) !== both(theirs, mine)) out.push(`${kind}s: their order`);
  return out;
}

/** What two versions of a job differ in, a line each. */
export function differences(mine: Job, theirs: Job): string[] {
  const job = fieldsOf(mine, theirs, ['boards', 'cutters', 'version']).map((f) => `job: ${f}`);
  const boards = listed('board', mine.boards, theirs.boards, (b) => b.name, ['setups']);
  const setups = mine.boards.flatMap((b) => {
    const other = theirs.boards.find((o) => o.id === b.id);
    if (!other) return [];
    return [
      ...listed('setup', b.setups, other.setups, (s) => s.name, ['layers', 'passes']),
      ...b.setups.flatMap((s) => {
        const o = other.setups.find((t) => t.id === s.id);
        if (!o) return [];
        return [
          ...listed('layer', s.layers, o.layers, (l) => l.name),
          ...listed('pass', s.passes, o.passes, (p) => cardOf(p).label),
        ];
      }),
    ];
  });
  return [...job, ...boards, ...setups, ...listed('bit', mine.cutters, theirs.cutters, (c) => c.name)];
}
