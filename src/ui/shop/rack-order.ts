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

/** The jobs that have every word of a text in name, order or board, and are in a state, in an order. */
export function onRack(jobs: RackEntry[], text: string, state: RackState, order: RackOrder): RackEntry[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = jobs.filter((j) => {
    const said = `${j.name} ${j.order} ${j.board}`.toLowerCase();
    return words.every((w) => said.includes(w)) && (state === 'all' || stateOf(j) === state);
  });
  const compare: Record<RackOrder, (a: RackEntry, b: RackEntry) => number> = {
    changed: (a, b) => byText(b.updated, a.updated),
    name: (a, b) => byText(a.name, b.name),
    order: (a, b) => byText(a.order, b.order),
    longest: (a, b) => (b.summary?.seconds ?? 0) - (a.summary?.seconds ?? 0),
  };
  return found.sort(compare[order]);
}
