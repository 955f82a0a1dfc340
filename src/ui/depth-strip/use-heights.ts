import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ask } from '@/contract/ask';
import { PLANS } from '@/contract/plans';
import { sectionOf } from '@/core/plan/view';
import type { SetupView } from '@/core/setup/view';
import type { SectionLine } from '../board-view/layout';
import type { Surface } from '../job/surface';
import type { Heights } from './section-solid';

interface Of {
  job: SetupView;
  surface: Surface | null;
  /** Id of the finished plan; null without one. */
  plan: string | null;
}

/** Heights along a section: cell by cell from the plan where there is one, from the picture's surfaces meanwhile. */
export function useHeights({ job, surface, plan }: Of, section: SectionLine, n: number): Heights | null {
  const exact = useQuery({
    queryKey: ['section', plan, job.setup.id, section, n],
    queryFn: () => ask(PLANS.section, { id: plan!, setup: job.setup.id, ...section, n }),
    enabled: plan !== null && surface?.proven === true,
    staleTime: Infinity,
    gcTime: 30_000,
  });
  return useMemo(() => {
    if (!surface) return null;
    if (exact.data) {
      const { target, cut, rough = null, under = null } = exact.data;
      return { target, cut, rough, under };
    }
    const read = (f: typeof surface.cut) => f && sectionOf(f, section, n);
    return {
      target: read(surface.target)!,
      cut: read(surface.cut),
      rough: read(surface.rough),
      under: read(surface.under),
    };
  }, [surface, exact.data, section, n]);
}
