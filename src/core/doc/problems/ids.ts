import type { Found } from '../../findings/finding';
import type { Job } from '../job';
import { type DocPath, problem } from './problem';

interface Named {
  id: string;
  path: DocPath;
}

/** All entries of one kind with their places in the document. */
function entries(job: Job): Record<string, Named[]> {
  const out: Record<string, Named[]> = {
    board: [],
    setup: [],
    bit: [],
    layer: [],
    pass: [],
    distance: [],
    holding: [],
  };
  const list = (kind: string, path: DocPath, all: { id: string }[]) =>
    out[kind].push(...all.map((e, i) => ({ id: e.id, path: [...path, i] })));
  list('board', ['boards'], job.boards);
  list('bit', ['cutters'], job.cutters);
  job.boards.forEach((b, i) => {
    list('setup', ['boards', i, 'setups'], b.setups);
    b.setups.forEach((s, k) => {
      const at = ['boards', i, 'setups', k];
      list('layer', [...at, 'layers'], s.layers);
      list('pass', [...at, 'passes'], s.passes);
      list('distance', [...at, 'gaps'], s.gaps);
      list('holding', [...at, 'holding'], s.holding);
    });
  });
  return out;
}

/** Ids that two things of a kind share: what names them cannot tell which is meant. */
export function ids(job: Job): Found[] {
  return Object.entries(entries(job)).flatMap(([kind, all]) => {
    const seen = new Set<string>();
    return all.flatMap(({ id, path }) => {
      if (!seen.has(id)) {
        seen.add(id);
        return [];
      }
      let n = 2;
      while (all.some((e) => e.id === `${id}-${n}`)) n++;
      const to = `${id}-${n}`.slice(-64);
      return [
        problem(
          'id-twice',
          [...path, 'id'],
          { kind, id },
          { fixes: [{ id: 'rename-id', figures: { to }, edits: [{ set: [...path, 'id'], to }] }] },
        ),
      ];
    });
  });
}
