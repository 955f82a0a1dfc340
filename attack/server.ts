import { type ChildProcess, spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** A real server on 127.0.0.1 with data of its own, as its own process. */
export class AttackedServer {
  private child: ChildProcess | null = null;

  constructor(
    readonly data: string,
    private readonly port = 4188,
  ) {}

  get base(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    if (await this.answers()) throw new Error(`something answers on ${this.base} already; end it first`);
    const env = { ...process.env, ZG_DATA: this.data, ZG_PORT: String(this.port), NEXT_TELEMETRY_DISABLED: '1' };
    this.child = spawn(process.execPath, ['scripts/serve.mjs'], { env, stdio: ['ignore', 'ignore', 'ignore'] });
    for (let i = 0; i < 300; i++) {
      if (await this.answers()) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the server did not start; build first (./zg test or npm run build)');
  }

  async answers(): Promise<boolean> {
    return fetch(`${this.base}/api/library`).then(
      (r) => r.ok,
      () => false,
    );
  }

  /** Ends the server at once, as a power cut would. */
  async kill(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    await new Promise<void>((done) => {
      child.once('exit', () => done());
      child.kill('SIGKILL');
    });
  }

  /** Most memory that the server has held, MB (VmHWM), or null where the system does not tell. */
  peak(): number | null {
    try {
      const text = readFileSync(`/proc/${this.child?.pid}/status`, 'utf8');
      return Number(/VmHWM:\s+(\d+) kB/.exec(text)?.[1] ?? Number.NaN) / 1024;
    } catch {
      return null;
    }
  }

  async json<T>(method: string, url: string, body?: unknown): Promise<{ status: number; body: T }> {
    const res = await fetch(this.base + url, {
      method,
      headers: { 'content-type': 'application/json', 'x-zealous-grain': '1' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
    return { status: res.status, body: (await res.json().catch(() => ({}))) as T };
  }

  async put(name: string, bytes: Uint8Array): Promise<{ status: number; body: { hash?: string; error?: string } }> {
    const res = await fetch(`${this.base}/api/assets?name=${encodeURIComponent(name)}`, {
      method: 'PUT',
      body: bytes as Uint8Array<ArrayBuffer>,
    });
    return { status: res.status, body: (await res.json().catch(() => ({}))) as { hash?: string; error?: string } };
  }
}
