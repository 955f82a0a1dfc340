import { randomBytes, randomUUID } from 'node:crypto';
import { chmodSync, copyFileSync, existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { type Device, device } from '../../contract/shop';
import { asideOf, makeFolder, moveFile, writeParts } from '../files';

/** Beside the shop's data; a backup does not hold it: who may come in belongs to the machine. */
export const ACCESS_FILE = 'access.json';

const access = z.object({
  /** What cookies are sealed with. */
  secret: z.string().min(32),
  devices: z.array(device),
});

/** Lets the devices of one folder into the shop that takes its place. */
export function carryAccess(from: string, to: string): void {
  const file = path.join(from, ACCESS_FILE);
  if (existsSync(file)) copyFileSync(file, path.join(to, ACCESS_FILE));
}

/** How much older the time of the last visit may be on the disk than it is, ms. */
const STALE = 3_600_000;
const LONGEST_NAME = 60;

/** The devices that have been paired, in a file that only we can read. */
export class DeviceBook {
  readonly secret: string;
  private devices: Device[];

  constructor(
    private readonly folder: string,
    private readonly now: () => Date = () => new Date(),
  ) {
    const had = this.read();
    this.secret = had?.secret ?? randomBytes(32).toString('base64url');
    this.devices = had?.devices ?? [];
    if (!had) this.save();
  }

  private get file(): string {
    return path.join(this.folder, ACCESS_FILE);
  }

  /** A file that is not there or is damaged lets nobody in: all devices pair again. */
  private read(): z.infer<typeof access> | null {
    try {
      return access.parse(JSON.parse(readFileSync(this.file, 'utf8')));
    } catch {
      return null;
    }
  }

  private save(): void {
    makeFolder(this.folder);
    const aside = asideOf(this.file);
    writeParts(aside, [new TextEncoder().encode(JSON.stringify({ secret: this.secret, devices: this.devices }))]);
    chmodSync(aside, 0o600);
    moveFile(aside, this.file);
  }

  /** All devices, the one that came last first. */
  list(): Device[] {
    return [...this.devices].sort((a, b) => b.seen.localeCompare(a.seen));
  }

  /** Lets a device in from now on. */
  add(name: string): Device {
    const at = this.now().toISOString();
    const clean = name
      .replace(/\p{Cc}/gu, ' ')
      .trim()
      .slice(0, LONGEST_NAME);
    const made = { id: randomUUID(), name: clean || 'a device without a name', paired: at, seen: at };
    this.devices = [...this.devices, made];
    this.save();
    return made;
  }

  /** Whether a device may come in; it is noted that it came. */
  lets(id: string | undefined): boolean {
    const d = this.devices.find((e) => e.id === id);
    if (!d) return false;
    const at = this.now();
    const stale = at.getTime() - Date.parse(d.seen) > STALE;
    d.seen = at.toISOString();
    if (stale) this.save();
    return true;
  }

  /** Lets a device in no more; whether there was one. */
  remove(id: string): boolean {
    const left = this.devices.filter((d) => d.id !== id);
    if (left.length === this.devices.length) return false;
    this.devices = left;
    this.save();
    return true;
  }
}
