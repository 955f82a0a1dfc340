import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** Each worker has its own servers. */
export const PORT = 4179 + 10 * Number(process.env.TEST_PARALLEL_INDEX ?? 0);
export const BASE = `http://127.0.0.1:${PORT}`;
/** Where other devices are listened to, by a server that is started for them. */
export const OTHER = `127.0.0.1:${PORT + 1}`;

/** The real server on data of its own. */
export class TestServer {
  readonly data = mkdtempSync(path.join(tmpdir(), 'zg-e2e-'));
  private child: ChildProcess | undefined;

  /** @param more of the environment that it is started in */
  constructor(private readonly more: Record<string, string> = {}) {}

  async start(): Promise<void> {
    // One that was left behind would be tested instead, whatever it was built from.
    const other = await fetch(BASE).catch(() => null);
    if (other) throw new Error(`something answers at ${BASE} already; end it, and test again`);
    this.child = spawn('node', ['scripts/serve.mjs'], {
      env: { ...process.env, ZG_DATA: this.data, ZG_PORT: String(PORT), NEXT_TELEMETRY_DISABLED: '1', ...this.more },
      stdio: 'ignore',
    });
    for (let i = 0; i < 200; i++) {
      const ok = await fetch(`${BASE}/api/library`).then(
        (r) => r.ok,
        () => false,
      );
      if (ok) return;
      await new Promise((r) => setTimeout(r, 150));
    }
    throw new Error('the server did not start');
  }

  /** Stops the server at once, as a power cut would. */
  async kill(): Promise<void> {
    const child = this.child;
    if (!child || child.exitCode !== null) return;
    await new Promise<void>((resolve) => {
      child.once('exit', () => resolve());
      child.kill('SIGKILL');
    });
  }

  async close(): Promise<void> {
    await this.kill();
    rmSync(this.data, { recursive: true, force: true });
  }
}
