import { AskError } from '@/contract/ask';
import { type Job, jobSchema } from '@/core/doc/job';
import { describeIssues } from '@/core/doc/refusal';
import { type Line, lastSaved, saved, shownOn, without } from './line';
import { type JobServer, saidBy } from './ports';

/** Wait after the last change before it is saved, ms. */
const SETTLE = 400;
/** First and longest wait before a server that does not answer is asked again, ms. */
const RETRY = { first: 1000, longest: 30_000 };

/** saved: what is shown is in force; waiting: it has just changed; refused: it cannot be saved; offline: it is tried again. */
export type Saving = 'saved' | 'waiting' | 'saving' | 'refused' | 'offline';

export interface SyncState {
  saving: Saving;
  /** Why the document as it is cannot be saved or planned. */
  problem: string | null;
  /** Two saves on top of the same version: the one in force, and the one that was kept aside. */
  conflict: { head: string; kept: string } | null;
  /** The version in force on the server, when it is the one that is shown. */
  revision: string | null;
}

export const UNSYNCED: SyncState = { saving: 'saved', problem: null, conflict: null, revision: null };

/** What the sync works on. */
export interface Synced {
  line(): Line;
  put(line: Line): void;
  state(): SyncState;
  say(s: Partial<SyncState>): void;
  /** Whether the page is still there. */
  open(): boolean;
  /** What is shown has come into force. */
  settled(): void;
  /** What is shown and not in force, with the version that is; null when nothing is. */
  remember(unsaved: { base: string; document: Job } | null): void;
}

const OFFLINE = 'the server does not answer; this change is kept here, and saved as soon as it does';

/** Brings the server to where the page is: one save after the other, again when it did not answer, and never over another's. */
export class Sync {
  /** What the server has in force. */
  private head = '';
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private wait = RETRY.first;

  constructor(
    private readonly server: JobServer,
    private readonly of: Synced,
  ) {}

  /** The server's line was taken over: this version is in force. */
  begin(head: string): void {
    this.head = head;
    this.of.say({ revision: head, saving: 'saved', problem: null });
  }

  /** Something has changed: it is saved when it settles. */
  later(): void {
    const document = shownOn(this.of.line());
    if (document) this.of.remember({ base: this.head, document });
    this.of.say({ revision: null, saving: 'waiting' });
    this.again(SETTLE);
  }

  private again(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.run(), ms);
  }

  /** The page is left: what has just changed is saved without waiting; nothing is tried again. */
  leave(): void {
    clearTimeout(this.timer);
    if (this.of.state().saving === 'waiting') void this.run();
  }

  /** Saves what is waiting or was not answered. @param chosen a conflict has been decided for what is shown */
  async run(chosen = false): Promise<void> {
    clearTimeout(this.timer);
    if (this.busy) return;
    if (this.of.state().conflict && !chosen) return this.of.say({ saving: 'refused' });
    this.busy = true;
    this.of.say({ saving: 'saving' });
    try {
      const refused = await this.bring();
      this.wait = RETRY.first;
      this.of.say({ problem: refused, saving: refused === null ? 'saved' : 'refused' });
      if (refused !== null) return;
      this.of.remember(null);
      this.of.say({ revision: this.head });
      this.of.settled();
    } catch (e) {
      this.failed(e);
    } finally {
      this.busy = false;
    }
  }

  /** Hands over a save on top of a version that is no longer in force: the server keeps it aside, and says so. */
  async tooLate(base: string, document: Job): Promise<void> {
    try {
      await this.server.save(base, document);
    } catch (e) {
      this.failed(e);
    }
  }

  private failed(e: unknown): void {
    if (e instanceof AskError && e.says.head && e.says.kept)
      // The server has answered: that it did not before is no longer to be said.
      this.of.say({ saving: 'refused', problem: null, conflict: { head: e.says.head, kept: e.says.kept } });
    else if (e instanceof AskError && e.status === 0) {
      this.of.say({ saving: 'offline', problem: OFFLINE });
      if (this.of.open()) this.again(this.wait);
      this.wait = Math.min(2 * this.wait, RETRY.longest);
    } else this.of.say({ saving: 'refused', problem: saidBy(e) });
  }

  /** The network is back: what waits for it goes at once. */
  online(): void {
    if (this.of.state().saving === 'offline') void this.run();
  }

  /**
   * Saves versions that the server does not have, in order, and puts the right one in force.
   * @returns what keeps the newest version from being saved, or null
   */
  private async bring(): Promise<string | null> {
    for (;;) {
      const line = this.of.line();
      const known = lastSaved(line);
      const base = line.entries[known]?.id;
      if (!base) return null;
      if (this.head !== base) {
        await this.server.moveHead(this.head, base);
        this.head = base;
        continue;
      }
      if (known === line.at) return null;
      const next = line.entries[known + 1];
      const parsed = jobSchema.safeParse(next.document);
      if (!parsed.success) {
        if (known + 1 === line.at) return describeIssues(parsed.error, next.document);
        // A later change has put it right: the version that cannot be saved is passed over.
        this.of.put(without(line, next));
        continue;
      }
      this.head = await this.server.save(base, parsed.data);
      this.of.put(saved(this.of.line(), next, this.head));
    }
  }
}
