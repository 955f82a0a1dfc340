import type { PlanState } from '@/contract/plans';
import { type Job, jobSchema, setupsOf } from '@/core/doc/job';
import { setupView } from '@/core/setup/view';
import { z } from '@/core/units/zod';
import { Drafts } from './drafts';
import { altered, changed, EMPTY, type Line, shownOn, stepped } from './line';
import { isStep, type Place, placeOf, type Station, searchOf } from './place';
import { Planner } from './planner';
import { type Browser, type JobServer, saidBy } from './ports';
import { Store } from './store';
import { Sync, type SyncState, UNSYNCED } from './sync';

/** What is shown of a state. */
export interface Shown {
  /** The document as it is shown: a change that is being tried out counts. */
  document: Job | undefined;
  /** A change is being tried out. */
  trying: boolean;
  /** Whether the plan is of the document as it is shown. */
  fresh: boolean;
  canUndo: boolean;
  canRedo: boolean;
}

export function shownOf({ line, draft, revision, plan }: EditorState): Shown {
  return {
    document: draft ?? shownOn(line),
    trying: draft !== null,
    fresh: draft === null && revision !== null && plan?.revision === revision,
    canUndo: line.at > 0,
    canRedo: line.at + 1 < line.entries.length,
  };
}

/** All that a page knows of the job that it edits. */
export interface EditorState extends SyncState {
  line: Line;
  /** A change that is being tried out, as while something is dragged. */
  draft: Job | null;
  plan: PlanState | null;
  place: Place;
}

const unsaved = z.object({ base: z.string(), document: jobSchema });

/**
 * A job as it is edited: its versions and the way along them, what of them is saved, the plan of what is in force, and where the person
 * is. Changes are shown at once, saved one by one when they settle, and planned. It knows nothing of how it is shown.
 */
export class Editor extends Store<EditorState> {
  readonly drafts: Drafts;
  private readonly sync: Sync;
  private readonly planner: Planner;
  private selections = 0;
  /** Counts openings, so that what a closed one began does not go on in the next. */
  private opening = 0;
  private isOpen = false;

  /** @param id of the job: what is kept over a reload is kept under it */
  constructor(
    private readonly id: string,
    private readonly server: JobServer,
    private readonly browser: Browser,
  ) {
    super({ ...UNSYNCED, line: EMPTY, draft: null, plan: null, place: placeOf(browser.search()) });
    this.drafts = new Drafts(browser.memory, `fields ${id}`);
    this.sync = new Sync(server, {
      line: () => this.state.line,
      put: (line) => this.set({ line }),
      state: () => this.state,
      say: (s) => this.set(s),
      open: () => this.isOpen,
      settled: () => {
        server.told();
        browser.tell(this.unsavedName);
        this.planner.soon();
      },
      remember: (u) => browser.memory.put(this.unsavedName, u && JSON.stringify(u)),
    });
    this.planner = new Planner(server, {
      document: () => shownOn(this.state.line),
      open: () => this.isOpen,
      arranging: () => this.state.place.station === 'Arrange',
      plan: () => this.state.plan,
      put: (plan) => this.set({ plan }),
      fail: (e) => this.fail(e),
    });
  }

  /** As the tabs name the job, and what is kept of it over a reload. */
  private get unsavedName(): string {
    return `unsaved ${this.id}`;
  }

  private fail(e: unknown): void {
    this.set({ problem: saidBy(e) });
  }

  /** Loads the job and follows what happens to it, until the returned function is called. */
  open(): () => void {
    const mine = ++this.opening;
    this.isOpen = true;
    const unwatch = this.browser.watch(this.unsavedName, {
      elsewhere: () => void this.catchUp().catch(() => {}),
      place: () => this.set({ place: placeOf(this.browser.search()) }),
      online: () => this.sync.online(),
    });
    void this.begin(() => this.isOpen && this.opening === mine).catch((e) => this.fail(e));
    return () => {
      this.isOpen = false;
      unwatch();
      this.sync.leave();
      this.planner.stop();
    };
  }

  private async load() {
    const stored = await this.server.load();
    this.set({ line: { entries: stored.chain, at: stored.at }, draft: null });
    this.sync.begin(stored.revision);
    return stored;
  }

  private async begin(wanted: () => boolean): Promise<void> {
    const { kept, plan, revision } = await this.load();
    if (!wanted()) return;
    if (kept !== null) this.set({ conflict: { head: revision, kept } });
    this.planner.found(plan);
    if (await this.resume(revision)) return;
    // A newcomer's job is planned by itself; one that was stopped by hand waits for the word.
    if (!plan || plan.status === 'interrupted' || (plan.revision !== revision && plan.status !== 'cancelled'))
      this.planner.soon();
  }

  /** Goes on with what this tab had not saved before it was loaded again; whether there was anything. */
  private async resume(revision: string): Promise<boolean> {
    const had = this.hadUnsaved();
    if (!had || JSON.stringify(had.document) === JSON.stringify(shownOn(this.state.line))) {
      this.browser.memory.put(this.unsavedName, null);
      return false;
    }
    if (had.base === revision) {
      this.change((j) => Object.assign(j, had.document));
      return true;
    }
    // Another page has saved since: both versions are kept, and a person chooses.
    this.set({ line: altered(this.state.line, (j) => Object.assign(j, had.document)), revision: null });
    await this.sync.tooLate(had.base, had.document);
    return true;
  }

  private hadUnsaved(): z.infer<typeof unsaved> | null {
    try {
      return unsaved.parse(JSON.parse(this.browser.memory.get(this.unsavedName) ?? 'null'));
    } catch {
      return null;
    }
  }

  /** Whether nothing is under way here that a newer version from elsewhere would take away. */
  private get isAtRest(): boolean {
    const { saving, draft, conflict } = this.state;
    return this.isOpen && saving === 'saved' && draft === null && conflict === null;
  }

  /** Shows what has been saved elsewhere since, while nothing is under way here. */
  private async catchUp(): Promise<void> {
    if (!this.isAtRest) return;
    const before = this.state.revision;
    const { revision, plan, kept, ...stored } = await this.server.load();
    // What has been saved here since it was asked for is newer than the answer.
    if (!this.isAtRest || this.state.revision !== before || revision === before) return;
    this.set({ line: { entries: stored.chain, at: stored.at } });
    if (kept !== null) this.set({ conflict: { head: revision, kept } });
    this.sync.begin(revision);
    this.planner.found(plan);
  }

  /** Makes a change, as one step that undo takes back. */
  readonly change = (edit: (job: Job) => void): void => {
    this.set({ draft: null });
    this.goOn(altered(this.state.line, edit));
  };

  /** The document as a change would leave it; null before there is one. */
  readonly tried = (edit: (job: Job) => void): Job | null => {
    const document = shownOn(this.state.line);
    return document ? changed(document, edit) : null;
  };

  /** Shows what a change would leave, without making it; null shows the document as it is. */
  readonly tryOut = (document: Job | null): void => this.set({ draft: document });

  readonly undo = (): void => this.goOn(stepped(this.state.line, -1));
  readonly redo = (): void => this.goOn(stepped(this.state.line, 1));

  private goOn(line: Line): void {
    if (line === this.state.line) return;
    this.set({ line });
    this.planner.hold();
    this.sync.later();
  }

  readonly prove = (): void => void this.planner.start();
  readonly cancel = (): void => void this.planner.cancel();

  /** What this page wants of a conflict: as it is shown where that is not saved, else the save that was kept aside. */
  private async mineOf({ kept }: { kept: string }): Promise<{ document: Job | undefined; unsaved: boolean }> {
    const { line } = this.state;
    const unsaved = line.entries.slice(0, line.at + 1).some((e) => e.id === null);
    return { document: unsaved ? shownOn(line) : await this.server.revision(kept), unsaved };
  }

  /** Settles a conflict: takes the other version, this one on top of it, or the other with this one kept beside it under a name. */
  readonly settle = async (way: 'mine' | 'other' | 'both', name = ''): Promise<void> => {
    const { conflict } = this.state;
    if (!conflict) return;
    try {
      const { document, unsaved } = await this.mineOf(conflict);
      if (way === 'both') {
        // What has been changed since the save that was refused is handed over too, to be kept aside as that was.
        if (unsaved && document) await this.sync.tooLate(conflict.kept, document);
        await this.server.nameVersion(this.state.conflict?.kept ?? conflict.kept, name);
      }
      await this.load();
      if (way === 'mine' && document) {
        this.change((j) => Object.assign(j, document));
        await this.sync.run(true);
        // The copy that was kept aside goes only when the same is in force.
        if (this.state.saving !== 'saved') return;
      } else {
        this.browser.memory.put(this.unsavedName, null);
        this.planner.soon();
      }
      await this.server.settleKept();
      this.set({ conflict: null });
    } catch (e) {
      this.fail(e);
    }
  };

  private goTo(to: Partial<Place>): void {
    const before = this.state.place;
    const place = { ...before, ...to };
    const search = searchOf(place);
    this.set({ place });
    if (search !== searchOf(before)) this.browser.show(search, isStep(before, place));
    // Arranging is over: what waited is planned now.
    const { revision, plan } = this.state;
    if (before.station === 'Arrange' && place.station !== 'Arrange' && revision && plan?.revision !== revision)
      this.planner.soon();
  }

  /** Goes to a station. A board of one layer is arranged by that layer: it is taken in hand at once. */
  readonly go = (station: Station): void => {
    const document = shownOn(this.state.line);
    const layers =
      station === 'Arrange' && document && setupsOf(document).length > 0
        ? setupView(document, this.state.place.setup).layers
        : [];
    this.goTo(layers.length === 1 ? { station, layers: [layers[0].id] } : { station });
  };

  readonly select = (layers: readonly string[]): void => {
    this.selections++;
    this.goTo({ layers });
  };

  /** What selects layers that arrive later, an upload's, unless the person has selected something else by then. */
  readonly selectLater = (): ((layers: readonly string[]) => void) => {
    const before = this.selections;
    return (layers) => {
      if (this.selections === before) this.select(layers);
    };
  };

  readonly showSetup = (setup: string): void => {
    this.selections++;
    this.goTo({ setup, layers: [], finding: null });
  };

  /** Takes a pass in hand; null for the first one. */
  readonly showPass = (pass: string | null): void => this.goTo({ pass });

  /** Points at a finding, where it is of a setup in that. */
  readonly showFinding = (finding: string, setup: string | undefined): void =>
    this.goTo({ station: 'Proof', finding, ...(setup === undefined ? {} : { setup }) });
}
