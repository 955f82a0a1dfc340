import { cutterSchema } from '../core/cutter/cutter';
import { machineSchema } from '../core/doc/machine';
import { materialSchema } from '../core/doc/material';
import { z } from '../core/units/zod';
import { endpoint, FILE, json } from './endpoint';

const library = z.object({
  machines: z.array(machineSchema),
  cutters: z.array(cutterSchema),
  materials: z.array(materialSchema),
});
/** What the shop has. */
export type Library = z.infer<typeof library>;

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
  library: endpoint({ method: 'GET', path: '/api/library', answer: json(library) }),
  /** Puts a bit into the drawer, or changes the one of that id. */
  saveCutter: endpoint({ method: 'PUT', path: '/api/cutters', body: cutterSchema, answer: json(cutterSchema) }),
  saveMachine: endpoint({ method: 'PUT', path: '/api/machines', body: machineSchema, answer: json(machineSchema) }),
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
