'use client';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { ask } from '@/contract/ask';
import { PLANS } from '@/contract/plans';
import type { Job } from '@/core/doc/job';
import type { ShownCase, StudyApi } from './study.worker';

/** How far a study has come. */
export interface Study {
  /** Cases that are done, of nine; null while none is running. */
  done: number | null;
  cases: ShownCase[];
  problem: string | null;
}

const NONE: Study = { done: null, cases: [], problem: null };

/** The written programs of a plan, as a study takes them. */
async function programsOf(plan: string) {
  const { summary } = await ask(PLANS.read, { id: plan });
  const programs = summary?.programs ?? [];
  return Promise.all(
    programs.map(async ({ setup, reserve, file, cutter }, index) => {
      const res = await ask(PLANS.program, { id: plan, index: String(index), older: 'yes' });
      return { setup, reserve, file, cutter, text: await res.text() };
    }),
  );
}

/** Studies of one board by one plan, in a worker of their own: it ends with the study, or when it is stopped. */
export function useStudy(plan: string, document: Job, board: string) {
  const [study, setStudy] = useState<Study>(NONE);
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(
    () => () => {
      worker.current?.terminate();
    },
    [],
  );
  const start = async (shift: number, turn: number) => {
    end();
    const own = new Worker(new URL('./study.worker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    setStudy({ ...NONE, done: 0 });
    const running = () => worker.current === own;
    try {
      const programs = await programsOf(plan);
      const gone = new Promise<never>((_, reject) => {
        own.addEventListener('error', () => reject(new Error('the study broke down; start it again')));
      });
      const remote: Remote<StudyApi> = wrap<StudyApi>(own);
      const onCase = proxy((done: number) => running() && setStudy((s) => ({ ...s, done })));
      const asked = { document, board, programs, shift, turn };
      const cases = await Promise.race([remote.study(asked, onCase), gone]);
      if (running()) setStudy({ done: null, cases, problem: null });
    } catch (e) {
      if (running()) setStudy({ ...NONE, problem: (e as Error).message });
    } finally {
      if (running()) end();
    }
  };
  const stop = () => {
    end();
    setStudy(NONE);
  };
  return { study, start, stop };
}
