import type { Phase } from '../core/plan/phases';

/** A phase takes longer than usual from so many times what is expected of it on, and so many seconds more. */
const LONGER = { times: 1.6, seconds: 4 };

/** How long a plan still takes, from what each of its phases is expected to take. Times in s, of any clock that runs on. */
export class TimeLeft {
  private readonly expected = new Map<string, number>();
  private readonly order: string[] = [];
  readonly took = new Map<string, number>();
  private current: { name: string; since: number } | null = null;

  constructor(phases: Phase[], expect: (p: Phase) => number) {
    for (const p of phases) {
      if (!this.expected.has(p.name)) this.order.push(p.name);
      this.expected.set(p.name, (this.expected.get(p.name) ?? 0) + expect(p));
    }
  }

  /** Something has begun, or goes on. */
  news(name: string, now: number): void {
    if (this.current?.name === name) return;
    this.close(now);
    this.current = { name, since: now };
  }

  /** What was being done has ended. */
  close(now: number): void {
    const { current } = this;
    if (current) this.took.set(current.name, (this.took.get(current.name) ?? 0) + now - current.since);
    this.current = null;
  }

  /** What is left, and whether what is being done takes longer than it usually does. */
  left(now: number): { secondsLeft: number; longer: boolean } {
    const { current, order, expected, took } = this;
    // What comes after it in the order; what was before it is done.
    const at = current ? order.indexOf(current.name) : -1;
    let secondsLeft = 0;
    for (const name of order.slice(at + 1))
      secondsLeft += Math.max(0, (expected.get(name) ?? 0) - (took.get(name) ?? 0));
    if (!current) return { secondsLeft, longer: false };
    const usual = expected.get(current.name) ?? 0;
    const gone = (took.get(current.name) ?? 0) + now - current.since;
    return {
      secondsLeft: secondsLeft + Math.max(0, usual - gone),
      longer: gone > LONGER.times * usual + LONGER.seconds,
    };
  }
}
