import type { Edit, Step } from '../findings/edit';
import type { Job, Place } from './job';

type Node = Record<string | number, unknown>;

function indexOf(list: unknown[], step: Step): number {
  return typeof step === 'object'
    ? list.findIndex((e) => (e as { id?: unknown } | null)?.id === step.id)
    : Number(step);
}

/** The list or object at a path. @throws RangeError where the document has no such place */
function nodeAt(root: unknown, path: Step[]): Node | unknown[] {
  let node = root;
  for (const step of path) {
    const next: unknown = Array.isArray(node) ? node[indexOf(node, step)] : (node as Node | null)?.[step as string];
    if (typeof next !== 'object' || next === null)
      throw new RangeError(`the job has no ${path.map((s) => (typeof s === 'object' ? s.id : s)).join('.')} any more`);
    node = next;
  }
  return node as Node | unknown[];
}

function apply(job: Job, e: Edit): void {
  if ('insert' in e) {
    (nodeAt(job, e.insert) as unknown[]).splice(e.at, 0, structuredClone(e.value));
    return;
  }
  const path = 'set' in e ? e.set : e.remove;
  const holder = nodeAt(job, path.slice(0, -1));
  const last = path[path.length - 1];
  if (!Array.isArray(holder)) {
    if ('set' in e) holder[last as string] = structuredClone(e.to);
    return;
  }
  const at = indexOf(holder, last);
  if (at < 0 || at >= holder.length) throw new RangeError(`the job has no ${JSON.stringify(last)} any more`);
  if ('set' in e) holder[at] = structuredClone(e.to);
  else holder.splice(at, 1);
}

/** Makes edits in a document, one after the other. @throws RangeError where a place is gone; edits before it are made then */
export function applyEdits(job: Job, edits: Edit[]): void {
  for (const e of edits) apply(job, e);
}

/** A document with edits made; the given one stays as it is. @throws RangeError where a place is gone */
export function withEdits(job: Job, edits: Edit[]): Job {
  const out = structuredClone(job);
  applyEdits(out, edits);
  return out;
}

/** Steps to something of a setup. */
export function inSetup({ board, setup }: { board: { id: string }; setup: { id: string } }, ...steps: Step[]): Step[] {
  return ['boards', { id: board.id }, 'setups', { id: setup.id }, ...steps];
}

/** Steps to something of a board. */
export function inBoard({ board }: Pick<Place, 'board'> | { board: { id: string } }, ...steps: Step[]): Step[] {
  return ['boards', { id: board.id }, ...steps];
}
