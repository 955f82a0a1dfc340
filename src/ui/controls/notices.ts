import { Store } from '../editor/store';

/** Something that was done, with the way back where there is one. */
export interface Notice {
  id: number;
  text: string;
  undo: (() => void) | null;
}

/** How long a notice stays, ms: long enough to read it and to reach for the way back. */
const STAYS = 9000;

/** What has just been done and may be taken back, the newest last. */
class Notices extends Store<{ all: readonly Notice[] }> {
  private count = 0;

  readonly say = (text: string, undo: (() => void) | null = null): void => {
    const id = ++this.count;
    this.set({ all: [...this.state.all.slice(-2), { id, text, undo }] });
    setTimeout(() => this.leave(id), STAYS);
  };

  readonly leave = (id: number): void => {
    if (this.state.all.some((n) => n.id === id)) this.set({ all: this.state.all.filter((n) => n.id !== id) });
  };
}

export const notices = new Notices({ all: [] });
