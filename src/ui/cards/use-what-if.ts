import { useQuery } from '@tanstack/react-query';
import { ask } from '@/contract/ask';
import { JOBS, type WhatIf } from '@/contract/jobs';
import type { Edit } from '@/core/findings/edit';

/** Wait between two looks at a change that is still being planned, ms. */
const AGAIN = 1500;

/**
 * What a change of the job's newest version comes to; asked for while it is looked at.
 * @param edits null asks nothing
 * @param revision of the document that the edits are of
 */
export function useWhatIf(id: string, edits: Edit[] | null, revision: string): WhatIf | null {
  const asked = useQuery({
    queryKey: ['what-if', id, revision, edits],
    queryFn: () => ask(JOBS.whatIf, { id }, { edits: edits! }),
    enabled: edits !== null && edits.length > 0 && revision !== '',
    refetchInterval: (q) => (q.state.data?.status === 'planning' ? AGAIN : false),
    staleTime: Infinity,
    retry: false,
  });
  return asked.data ?? null;
}
