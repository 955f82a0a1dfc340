import { type Copied, libraryChangeSchema, librarySchema } from '../core/doc/library';
import { z } from '../core/units/zod';
import { endpoint, FILE, type Fields, json } from './endpoint';

/** A job that has a copy of something. */
const user = z.object({ id: z.string(), name: z.string() });
const users = z.record(z.string(), z.array(user));
/** Which jobs on the rack have copies of what the shop has, by shelf and id. */
const uses = z.object({ machines: users, cutters: users, materials: users } satisfies Fields<Record<Copied, unknown>>);
export type Uses = z.infer<typeof uses>;

/** What a backup has brought back. */
const restored = z.object({
  jobs: z.number(),
  files: z.number(),
  /** Where the shop lies that was there before; null where there was none. */
  before: z.string().nullable(),
});
export type Restored = z.infer<typeof restored>;

/** A device that was paired and may come in. */
export const device = z.object({
  id: z.string(),
  name: z.string(),
  /** When it was paired, and when it last came. */
  paired: z.string(),
  seen: z.string(),
});
export type Device = z.infer<typeof device>;
/** How other devices reach this shop, and which may; null while they are not listened to. */
const devices = z
  .object({
    addresses: z.array(z.string()),
    /** Whether the connection is encrypted. */
    secure: z.boolean(),
    code: z.string(),
    /** Seconds until a code is taken again, after too many wrong ones. */
    closed: z.number(),
    devices: z.array(device),
  })
  .nullable();
export type Devices = z.infer<typeof devices>;

export const SHOP = {
  library: endpoint({ method: 'GET', path: '/api/library', answer: json(librarySchema) }),
  /** Puts bits, machines, materials and recipes in, or takes them away: all of it or nothing. */
  changeLibrary: endpoint({
    method: 'PUT',
    path: '/api/library',
    body: libraryChangeSchema,
    answer: json(librarySchema),
  }),
  uses: endpoint({ method: 'GET', path: '/api/library/uses', answer: json(uses) }),
  /** Other devices, told at the machine itself only. */
  devices: endpoint({ method: 'GET', path: '/api/shop/devices', answer: json(devices) }),
  removeDevice: endpoint({ method: 'DELETE', path: '/api/shop/devices/[id]', answer: json(devices) }),
  /** The whole shop as one archive. */
  backup: endpoint({ method: 'GET', path: '/api/shop/backup', answer: FILE }),
  /** Puts a backup in the place of this shop; one that has jobs gives way only when that is said. */
  restore: endpoint({
    method: 'PUT',
    path: '/api/shop/backup',
    query: z.object({ replace: z.literal('yes').optional() }),
    needs: 'replace is yes or is left out',
    body: 'file',
    answer: json(restored),
  }),
};
