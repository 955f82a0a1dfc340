import { Store } from '../editor/store';
import { WorkerGone } from '../workers/hand';
import type { ArrangeInput, CoarseLook, Look } from './looks';

/** What works layers out: at once on a coarse grid, soon as finely as the screen shows them, thoroughly on the full one. */
export interface Arrangers {
  coarse(input: ArrangeInput): Promise<CoarseLook>;
  fine(input: ArrangeInput): Promise<Look>;
  full(input: ArrangeInput): Promise<Look>;
}

/** What is known of the layers that were asked for last, and of those before while that is worked out. */
export interface Arranged {
  coarse: CoarseLook | null;
  /** What was worked out as finely as it is shown, or on the full grid, and what it is of. */
  sharp: { of: string; look: Look } | null;
}

/** Wait before what a worker left undone is asked for again, ms. */
const AGAIN = 2000;

/** Wait after the last change before it is worked out as finely as it is shown, and after that before the full grid is, ms. */
const REST = 120;
const LONGER = 600;

/** What a look is of: the selection does not change the surface. */
export const surfaceKey = (input: ArrangeInput): string =>
  JSON.stringify({ ...input, selected: [], axis: 'x', moving: false });

/** A request, and what it is of. */
interface Wanted {
  input: ArrangeInput;
  of: string;
}

/** Layers worked out as they change: coarse at every change, the newest first and none in between, and sharp when they rest. */
export class Arranging extends Store<Arranged> {
  /** What was asked for last, and the same as long as it is not worked on. */
  private asked: ArrangeInput | null = null;
  private latest: ArrangeInput | null = null;
  private busy = false;
  private next: Wanted | null = null;
  private sharpening = false;
  private wanted = '';
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param onCoarse is told of each coarse look just before it is shown, so that what goes with it is drawn with it */
  constructor(
    private readonly arrangers: Arrangers,
    private readonly onCoarse: () => void = () => {},
  ) {
    super({ coarse: null, sharp: null });
  }

  /** Shows other layers; while something moves only the coarse grid is worked on. The same input once more is no other. */
  show(input: ArrangeInput): void {
    if (input === this.asked) return;
    this.asked = input;
    this.latest = input;
    void this.work();
    if (input.moving) {
      clearTimeout(this.timer);
      this.wanted = '';
      return;
    }
    const key = surfaceKey(input);
    if (key === this.wanted) return;
    clearTimeout(this.timer);
    this.wanted = key;
    this.timer = setTimeout(() => void this.sharpen({ input, of: key }), REST);
  }

  stop(): void {
    clearTimeout(this.timer);
    this.wanted = '';
    this.asked = null;
    this.latest = null;
    this.next = null;
  }

  private async work(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    while (this.latest) {
      const mine = this.latest;
      this.latest = null;
      const coarse = await this.arrangers.coarse(mine).catch((e) => this.failed(e, mine));
      if (!coarse) continue;
      this.onCoarse();
      this.set({ coarse });
    }
    this.busy = false;
  }

  /** What a worker that is gone left undone is asked for again, unless something newer has been shown. */
  private failed(e: unknown, input: ArrangeInput): null {
    if (e instanceof WorkerGone) {
      clearTimeout(this.timer);
      this.wanted = '';
      this.asked = null;
      this.timer = setTimeout(() => this.show(input), AGAIN);
    }
    return null;
  }

  /** What is wanted as finely as it is shown, the newest alone: what came in between while one was worked out is passed over. */
  private async sharpen(wanted: Wanted): Promise<void> {
    this.next = wanted;
    if (this.sharpening) return;
    this.sharpening = true;
    let last = wanted;
    while (this.next) {
      last = this.next;
      this.next = null;
      await this.take(last, this.arrangers.fine);
    }
    this.sharpening = false;
    // Whoever goes on meanwhile does not wait for a full grid.
    if (this.wanted === last.of) this.timer = setTimeout(() => void this.take(last, this.arrangers.full), LONGER);
  }

  private async take({ input, of }: Wanted, arranger: (input: ArrangeInput) => Promise<Look>): Promise<void> {
    const look = await arranger(input).catch((e) => this.failed(e, input));
    // What has been overtaken meanwhile is no step back.
    if (look && (this.wanted === of || this.get().sharp?.of !== this.wanted)) this.set({ sharp: { of, look } });
  }
}
