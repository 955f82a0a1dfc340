/** Longest wait for a picture before what moves is drawn without it, ms: four frames of a screen. */
const LATE = 64;

/**
 * When what a hand moves is drawn: with its picture, as soon as that has been worked out beside the page, or without it when that takes
 * longer. So a move costs one drawing of the page, and an outline does not run ahead of its relief.
 */
export class Pace {
  private readonly waiting = new Map<string, () => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Has something drawn with the next picture, in place of what waited under that name. */
  readonly put = (name: string, draw: () => void): void => {
    this.waiting.set(name, draw);
    this.timer ??= setTimeout(this.flush, LATE);
  };

  /** Has something drawn together with what waits, or at once where nothing does. */
  readonly join = (name: string, draw: () => void): void => {
    if (this.waiting.size > 0) this.put(name, draw);
    else draw();
  };

  /** Draws all that waits. */
  readonly flush = (): void => {
    const draws = [...this.waiting.values()];
    this.clear();
    for (const draw of draws) draw();
  };

  /** What waited under a name is not to be drawn any more. */
  readonly drop = (name: string): void => {
    this.waiting.delete(name);
    if (this.waiting.size === 0) this.clear();
  };

  private clear(): void {
    this.waiting.clear();
    clearTimeout(this.timer);
    this.timer = undefined;
  }
}
