import type { RackEntry } from '@/contract/jobs';

/** Orders of the jobs on the rack. */
export const ORDERS = {
  changed: 'changed last first',
  name: 'by name',
  order: 'by order number',
  longest: 'longest first',
} as const;
export type RackOrder = keyof typeof ORDERS;

/** What of the jobs is shown. */
export const STATES = { all: 'all', todo: 'to be proven', ready: 'ready to run', wrong: 'with errors' } as const;
export type RackState = keyof typeof STATES;

const isProven = (j: RackEntry) => j.plan?.status === 'done' && j.plan.revision === j.revision && !j.older;
const isWrong = (j: RackEntry) =>
  j.unreadable !== null || j.problems > 0 || (isProven(j) && (j.summary?.errors ?? 0) > 0);

/** Which of the states a job is in, besides all. */
export function stateOf(j: RackEntry): Exclude<RackState, 'all'> {
  if (isWrong(j)) return 'wrong';
  return isProven(j) ? 'ready' : 'todo';
}

const byText = (a: string, b: string) => a.localeCompare(b, undefined, { numeric: true });

/** What of the rack is shown, and in which order. */
export interface Shown {
  text: string;
  state: RackState;
  /** A folder's name; empty for all of them. */
  folder: string;
  order: RackOrder;
}

/** The folders that jobs lie in, by name. */
export const foldersOf = (jobs: RackEntry[]): string[] =>
  [...new Set(jobs.map((j) => j.folder).filter(Boolean))].sort(byText);

/** The jobs that have every word of a text in name, order, board or folder, and are in a state and a folder, in an order. */
export function onRack(jobs: RackEntry[], { text, state, folder, order }: Shown): RackEntry[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = jobs.filter((j) => {
    const said = `${j.name} ${j.order} ${j.board} ${j.folder}`.toLowerCase();
    const here = (state === 'all' || stateOf(j) === state) && (folder === '' || j.folder === folder);
    return here && words.every((w) => said.includes(w));
  });
  const compare: Record<RackOrder, (a: RackEntry, b: RackEntry) => number> = {
    changed: (a, b) => byText(b.updated, a.updated),
    name: (a, b) => byText(a.name, b.name),
    order: (a, b) => byText(a.order, b.order),
    longest: (a, b) => (b.summary?.seconds ?? 0) - (a.summary?.seconds ?? 0),
  };
  return found.sort(compare[order]);
}
