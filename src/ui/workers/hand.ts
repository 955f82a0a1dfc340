import { type Remote, wrap } from 'comlink';

/** A worker that could not be loaded, as from a server that is gone, or broke down. */
export class WorkerGone extends Error {
  /** @param what it does, in words */
  constructor(what: string) {
    super(`what ${what} could not be loaded; load the page again`);
  }
}

interface Held<T> {
  remote: Remote<T>;
  /** Rejected when the worker is gone. */
  gone: Promise<never>;
}

/** A worker beside the page: started when it is first asked, and again when it is asked after it was gone. */
export class Hand<T> {
  private held: Held<T> | null = null;

  /** @param what it does, in words that follow "what" */
  constructor(
    private readonly what: string,
    private readonly start: () => Worker,
  ) {}

  private hold(): Held<T> {
    const worker = this.start();
    const gone = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        this.held = null;
        worker.terminate();
        reject(new WorkerGone(this.what));
      });
    });
    gone.catch(() => {});
    return { remote: wrap<T>(worker), gone };
  }

  /** What it answers; a worker that is gone is an error instead of an answer that never comes. @throws WorkerGone, and what the worker refuses */
  ask<R>(call: (remote: Remote<T>) => Promise<R>): Promise<R> {
    this.held ??= this.hold();
    const { remote, gone } = this.held;
    return Promise.race([call(remote), gone]);
  }

  /** The same, asked once more of another worker where the first is gone. */
  askTwice<R>(call: (remote: Remote<T>) => Promise<R>): Promise<R> {
    return this.ask(call).catch((e: unknown) => {
      if (e instanceof WorkerGone) return this.ask(call);
      throw e;
    });
  }
}
