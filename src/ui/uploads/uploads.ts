import { Store } from '../editor/store';

/** A file on its way, or one that was refused. */
export interface Upload {
  id: number;
  name: string;
  /** Share of it that has gone; null while it waits for those before it. */
  share: number | null;
  /** Why it was refused. */
  error: string | null;
  /** Where it can be opened, when it has arrived and there is somewhere to go. */
  href: string | null;
}

/** What becomes of one file: its answer, and how it is stopped. */
export interface Way {
  done: Promise<string | null>;
  cancel(): void;
}

/** Largest file that is taken, bytes. */
const MOST = 2 * 1024 ** 3;

/** Files that a person has given, one after the other: each with how far it is, or with what is wrong with it; one that fails keeps none of the others. */
export class Uploads extends Store<{ files: readonly Upload[] }> {
  private readonly waiting: { id: number; file: File }[] = [];
  private going: { id: number; way: Way } | null = null;
  private count = 0;

  /** @param begin sends one file; its promise gives where it can be opened, or null */
  constructor(private readonly begin: (file: File, progress: (share: number) => void) => Way) {
    super({ files: [] });
  }

  private put(id: number, change: Partial<Upload> | null): void {
    this.set({
      files: this.state.files.flatMap((f) => (f.id !== id ? [f] : change ? [{ ...f, ...change }] : [])),
    });
  }

  /** Takes files; what was said of earlier ones is cleared away. */
  readonly take = (files: readonly File[]): void => {
    const going = this.state.files.filter((f) => f.error === null && f.href === null);
    const added = files.map((file) => ({ id: ++this.count, file }));
    this.set({
      files: [
        ...going,
        ...added.map(({ id, file }) => ({ id, name: file.name, share: null, error: null, href: null })),
      ],
    });
    this.waiting.push(...added);
    void this.work();
  };

  /** Stops a file that is on its way, or takes what is said of one away. */
  readonly leave = (id: number): void => {
    if (this.going?.id === id) this.going.way.cancel();
    const at = this.waiting.findIndex((w) => w.id === id);
    if (at >= 0) this.waiting.splice(at, 1);
    this.put(id, null);
  };

  private async work(): Promise<void> {
    if (this.going) return;
    for (let next = this.waiting.shift(); next; next = this.waiting.shift()) {
      const { id, file } = next;
      if (file.size > MOST) {
        this.put(id, { error: `${file.name}: is ${file.size} bytes, more than 2 GB; reduce the model` });
        continue;
      }
      const way = this.begin(file, (share) => this.put(id, { share }));
      this.going = { id, way };
      this.put(id, { share: 0 });
      try {
        const href = await way.done;
        this.put(id, href === null ? null : { href });
      } catch (e) {
        this.put(id, { error: (e as Error).message });
      }
      this.going = null;
    }
  }
}
