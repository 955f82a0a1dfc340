import { ask, follow } from '@/contract/ask';
import { JOBS } from '@/contract/jobs';
import { PLANS } from '@/contract/plans';
import type { Browser, JobServer } from './ports';

/** A job on our own server. @param told called when what else the page shows of jobs may have changed */
export function serverOf(id: string, told: () => void): JobServer {
  return {
    load: async () => {
      const [job, { chain, at }] = await Promise.all([ask(JOBS.read, { id }), ask(JOBS.history, { id })]);
      return { revision: job.revision, kept: job.kept[0]?.id ?? null, plan: job.plan, chain, at };
    },
    save: async (base, document) => (await ask(JOBS.save, { id }, { base, document })).revision,
    moveHead: async (from, to) => {
      await ask(JOBS.moveHead, { id }, { from, to });
    },
    revision: (revision) => ask(JOBS.revision, { id, revision }),
    settleKept: async () => {
      await ask(JOBS.settleKept, { id });
    },
    nameVersion: async (revision, name) => {
      await ask(JOBS.nameVersion, { id }, { revision, name });
    },
    plan: () => ask(JOBS.plan, { id }),
    cancelPlan: (plan) => ask(PLANS.cancel, { id: plan }),
    follow: (plan, onState) => follow(PLANS.events, { id: plan }, onState),
    told,
  };
}

/** Does something with the tab's own storage; where that is not allowed or full, it remembers nothing. */
function tryMemory<T>(use: () => T, otherwise: T): T {
  try {
    return use();
  } catch {
    return otherwise;
  }
}

const NAME = 'zealous-grain';

/** What tabs tell each other through: one a page, for a page hears what it says through another. */
let channel: BroadcastChannel | null = null;
function tabs(): BroadcastChannel {
  channel ??= new BroadcastChannel(NAME);
  return channel;
}

/** The browser that the page is in; on the server, where pages begin, there is none. */
export const browser: Browser = {
  search: () => (typeof window === 'undefined' ? '' : location.search),
  show: (search, step) => {
    const url = location.pathname + search;
    if (step) history.pushState(null, '', url);
    else history.replaceState(null, '', url);
  },
  watch: (thing, { place, online, elsewhere }) => {
    const told = (m: MessageEvent) => m.data === thing && elsewhere();
    tabs().addEventListener('message', told);
    const back = () => document.visibilityState === 'visible' && elsewhere();
    addEventListener('popstate', place);
    addEventListener('online', online);
    document.addEventListener('visibilitychange', back);
    return () => {
      tabs().removeEventListener('message', told);
      removeEventListener('popstate', place);
      removeEventListener('online', online);
      document.removeEventListener('visibilitychange', back);
    };
  },
  tell: (thing) => tabs().postMessage(thing),
  memory: {
    get: (name) => tryMemory(() => sessionStorage.getItem(`${NAME} ${name}`), null),
    put: (name, text) =>
      tryMemory(() => {
        if (text === null) sessionStorage.removeItem(`${NAME} ${name}`);
        else sessionStorage.setItem(`${NAME} ${name}`, text);
      }, undefined),
  },
};
