import type { Kysely } from 'kysely';
import type { PlanStatus } from '../contract/plans';
import type { Schema } from './database';
import { reasonOf } from './reasons';

/** How a plan stands, and what is said of it. */
export interface Standing {
  status: PlanStatus;
  message: string | null;
}

/** Writes how plans stand. What cannot be written for now, as on a full disk, is remembered and written when there is room. */
export class Standings {
  private readonly unwritten = new Map<string, Standing>();

  /** @param folder of the results, named when its disk is full */
  constructor(
    private readonly db: Kysely<Schema>,
    private readonly folder: string,
  ) {}

  /** @returns whether the plan stood as one of `was` until now */
  private async write(id: string, to: Standing, was: PlanStatus[]): Promise<boolean> {
    const finished = to.status === 'running' ? {} : { finished: new Date().toISOString() };
    const { numUpdatedRows } = await this.db
      .updateTable('plans')
      .set({ ...to, ...finished })
      .where('id', '=', id)
      .where('status', 'in', was)
      .executeTakeFirst();
    return numUpdatedRows > 0n;
  }

  private reason(e: unknown): string {
    return reasonOf(e, this.folder);
  }

  /** A queued plan begins, or one that gave way begins again. @returns whether it is still wanted */
  async begin(id: string): Promise<boolean> {
    try {
      return await this.write(id, { status: 'running', message: null }, ['queued', 'running']);
    } catch (e) {
      this.unwritten.set(id, { status: 'failed', message: this.reason(e) });
      return false;
    }
  }

  /** A running plan has ended; one whose end cannot be written has failed. */
  async end(id: string, to: Standing): Promise<void> {
    try {
      await this.write(id, to, ['running']);
    } catch (e) {
      this.unwritten.set(id, to.status === 'failed' ? to : { status: 'failed', message: this.reason(e) });
    }
  }

  /** How a plan stands: as it is written, or as it ended when there was no room to write it. */
  async of(row: Standing & { id: string }): Promise<Standing> {
    const ended = this.unwritten.get(row.id);
    if (!ended) return row;
    try {
      await this.write(row.id, ended, ['queued', 'running']);
      this.unwritten.delete(row.id);
    } catch {
      // Still no room.
    }
    return ended;
  }

  /** A plan whose end was not written waits anew. */
  forget(id: string): void {
    this.unwritten.delete(id);
  }
}
