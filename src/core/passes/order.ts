import type { Pass, PassKindName } from '../doc/pass';
import { kindOf } from './registry';

const rankOf = (p: Pick<Pass, 'kind'>) => kindOf(p).rank;

/** Why passes cannot be cut in this order, or null. */
export function orderProblem(passes: Pick<Pass, 'kind'>[]): string | null {
  for (let i = 1; i < passes.length; i++) {
    const kind = kindOf(passes[i]);
    const before = passes.slice(0, i).find((p) => rankOf(p) > kind.rank);
    if (!before) continue;
    const blocking = kindOf(before);
    const why = blocking.kind === 'cutout' ? blocking.late : kind.late;
    return `${kind.doing} after ${blocking.doing} ${why}`;
  }
  return null;
}

/** Passes in the order of work; those of a kind keep theirs. */
export function inOrder<P extends Pick<Pass, 'kind'>>(passes: P[]): P[] {
  return passes
    .map((p, i) => ({ p, i }))
    .sort((a, b) => rankOf(a.p) - rankOf(b.p) || a.i - b.i)
    .map((e) => e.p);
}

/** Where a new pass of a kind belongs among the others: after the last that does not come later. */
export function placeFor(passes: Pick<Pass, 'kind'>[], kind: PassKindName): number {
  const { rank } = kindOf(kind);
  return passes.findLastIndex((p) => rankOf(p) <= rank) + 1;
}

/** How often the bit is changed between the first of some passes and the last, in their order. */
export function bitChanges(passes: Pick<Pass, 'cutter'>[]): number {
  return passes.filter((p, i) => i > 0 && p.cutter !== passes[i - 1].cutter).length;
}

/** Whether passes go through the board anywhere: a cut-out, or holes without a depth. */
export function isThrough(passes: Pass[]): boolean {
  return passes.some((p) => (p.kind === 'cutout' || p.kind === 'hole') && p.depth === null);
}
