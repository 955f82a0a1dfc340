import type { PlanState } from '@/contract/plans';
import type { Job } from '@/core/doc/job';

/** A job as it stands on the server. */
export interface Stored {
  revision: string;
  /** A save of another page that was refused and kept, the newest; null when there is none. */
  kept: string | null;
  plan: PlanState | null;
  /** The line of versions that it stands on, and its place there. */
  chain: { id: string; document: Job }[];
  at: number;
}

/** What the editor asks of the server about its job. */
export interface JobServer {
  load(): Promise<Stored>;
  /** Saves a version on top of another, and says its id. */
  save(base: string, document: Job): Promise<string>;
  /** Puts another version in force. */
  moveHead(from: string, to: string): Promise<void>;
  revision(id: string): Promise<Job>;
  /** Lets go of saves that were kept aside. */
  settleKept(): Promise<void>;
  /** Gives a version a name, under which it stays. */
  nameVersion(revision: string, name: string): Promise<void>;
  plan(): Promise<PlanState>;
  cancelPlan(plan: string): Promise<PlanState>;
  /** Follows a plan until the returned function is called. */
  follow(plan: string, onState: (p: PlanState) => void): () => void;
  /** What else the page shows of jobs may have changed. */
  told(): void;
}

/** What the editor needs of the browser. */
export interface Browser {
  /** Fields of the address, from its question mark on. */
  search(): string;
  /** Puts fields into the address; a step is one that Back goes back over. */
  show(search: string, step: boolean): void;
  /**
   * Calls back when Back or Forward change the address, when the network is there again, and when the same thing may have been changed elsewhere: a tab
   * has said so, or the person comes back to this one; until the returned function is called.
   * @param thing what is shown, as the tabs name it to each other
   */
  watch(thing: string, on: { place(): void; online(): void; elsewhere(): void }): () => void;
  /** Tells other tabs that a thing has changed. */
  tell(thing: string): void;
  /** What stays over a reload of this tab: texts by name. Nothing is thrown where it is full. */
  memory: { get(name: string): string | null; put(name: string, text: string | null): void };
}

/** What an error says to a person. */
export const saidBy = (e: unknown): string => (e instanceof Error ? e.message : String(e));
