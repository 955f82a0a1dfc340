import { jobSchema } from '../core/doc/job';
import { name } from '../core/doc/parts';
import { z } from '../core/units/zod';
import { endpoint, FILE, json } from './endpoint';
import { planState } from './plans';
import { edit, finding } from './wire';

const text = z.string();
const DONE = json(z.object({}));

/** A job with its newest version. */
const job = z.object({
  id: text,
  revision: text,
  document: jobSchema,
  updated: text,
  /** Saves of another tab that were refused and kept. */
  kept: z.array(z.object({ id: text, created: text })),
});
export type JobInfo = z.infer<typeof job>;

/** What a job shows of itself on the rack. */
const labels = z.object({
  name: text,
  order: text,
  board: text,
  /** Why its stored document cannot be read; null when it can. */
  unreadable: text.nullable(),
  /** What in its document stops planning. */
  problems: z.number(),
  /** The setup that its picture is of; null when there is none. */
  setup: text.nullable(),
});
export type JobLabels = z.infer<typeof labels>;

const rackEntry = labels.extend({
  id: text,
  updated: text,
  /** The customer or series that it lies with; empty where it lies with none. */
  folder: text,
  revision: text,
  plan: z.object({ id: text, status: planState.shape.status, revision: text }).nullable(),
  /** Seconds that its planning is still expected to take by itself; null where it is not being planned. */
  about: z.number().nullable(),
  summary: z.object({ seconds: z.number(), errors: z.number(), warnings: z.number() }).nullable(),
  /** Whether an older version of this program proved it. */
  older: z.boolean(),
});
export type RackEntry = z.infer<typeof rackEntry>;

/** What is shown of a job at once when its page is opened. */
export interface FirstLook {
  name: string;
  /** Address of a picture of its board from above; null where there is none. */
  picture: string | null;
}

/** A job that can be brought back until a day. */
const removedJob = labels
  .pick({ name: true, order: true, board: true })
  .extend({ id: text, removed: text, until: text });
export type RemovedJob = z.infer<typeof removedJob>;

/** The line of versions that undo and redo go along. */
const history = z.object({
  /** From the oldest to the newest: what undo goes back through, the version in force, and what redo goes forward through. */
  chain: z.array(z.object({ id: text, document: jobSchema })),
  /** Place of the version in force. */
  at: z.number().int(),
});
export type History = z.infer<typeof history>;

/** A version with a name. */
const version = z.object({ id: text, name: text, revision: text, created: text });
export type Version = z.infer<typeof version>;
const versions = json(z.array(version));

/** What a change of a job comes to. */
const whatIf = z.object({
  /** planning: it is being worked out; stopped: what it would be cannot be planned; failed: its planning failed. */
  status: z.enum(['known', 'planning', 'stopped', 'failed']),
  seconds: z.number().nullable(),
  errors: z.number(),
});
export type WhatIf = z.infer<typeof whatIf>;

/** Programs from files, judged for a job. */
const judged = z.object({
  /** Stands for them when the answer is asked for again. */
  proof: text,
  /** planning: they are being judged; failed: they cannot be followed, or their judging failed. */
  status: z.enum(['known', 'planning', 'failed']),
  /** How far it has come, 0 to 1. */
  share: z.number(),
  message: text.nullable(),
  files: z.array(z.object({ file: text, seconds: z.number() })),
  findings: z.array(finding),
});
export type Judged = z.infer<typeof judged>;

/** Most program files that are judged at once. */
export const MOST_FILES = 40;

export const EXPORTS = ['heights-png', 'heights-tiff', 'stl', 'picture', 'outline-svg', 'outline-dxf'] as const;
export type ExportKind = (typeof EXPORTS)[number];

export const JOBS = {
  rack: endpoint({ method: 'GET', path: '/api/jobs', answer: json(z.array(rackEntry)) }),
  /** Makes a job of a stored relief, or an empty board. */
  create: endpoint({
    method: 'POST',
    path: '/api/jobs',
    body: z.object({ asset: text.optional(), name: text.trim().max(80).optional() }),
    answer: json(job),
  }),
  /** Makes a job of an archive that was exported. */
  import: endpoint({
    method: 'PUT',
    path: '/api/jobs/import',
    query: z.object({ name: text.optional() }),
    body: 'file',
    answer: json(job),
  }),
  removed: endpoint({ method: 'GET', path: '/api/jobs/removed', answer: json(z.array(removedJob)) }),
  read: endpoint({ method: 'GET', path: '/api/jobs/[id]', answer: json(job.extend({ plan: planState.nullable() })) }),
  save: endpoint({
    method: 'PUT',
    path: '/api/jobs/[id]',
    body: z.object({ base: text, document: jobSchema }),
    answer: json(job),
  }),
  remove: endpoint({ method: 'DELETE', path: '/api/jobs/[id]', answer: DONE }),
  /** Makes another job of its newest version; named versions stay with the first. */
  copy: endpoint({ method: 'POST', path: '/api/jobs/[id]/copy', answer: json(job) }),
  /** Lays it with a customer's or a series' other jobs; with none where the folder has no name. */
  folder: endpoint({
    method: 'PUT',
    path: '/api/jobs/[id]/folder',
    body: z.object({ folder: z.string().trim().max(60) }),
    answer: DONE,
  }),
  /** Puts a removed job back on the rack. */
  bringBack: endpoint({ method: 'POST', path: '/api/jobs/[id]/back', answer: DONE }),
  history: endpoint({ method: 'GET', path: '/api/jobs/[id]/history', answer: json(history) }),
  /** Undo and redo: another version comes into force. */
  moveHead: endpoint({
    method: 'PUT',
    path: '/api/jobs/[id]/head',
    body: z.object({ from: text, to: text }),
    answer: json(job),
  }),
  revision: endpoint({ method: 'GET', path: '/api/jobs/[id]/revisions/[revision]', answer: json(jobSchema) }),
  revisionPicture: endpoint({ method: 'GET', path: '/api/jobs/[id]/revisions/[revision]/picture', answer: FILE }),
  /** Lets go of saves that were kept aside. */
  settleKept: endpoint({ method: 'DELETE', path: '/api/jobs/[id]/kept', answer: DONE }),
  versions: endpoint({ method: 'GET', path: '/api/jobs/[id]/versions', answer: versions }),
  nameVersion: endpoint({
    method: 'POST',
    path: '/api/jobs/[id]/versions',
    body: z.object({ revision: text, name }),
    answer: versions,
  }),
  removeVersion: endpoint({ method: 'DELETE', path: '/api/jobs/[id]/versions/[version]', answer: versions }),
  /** Plans the newest version. */
  plan: endpoint({ method: 'POST', path: '/api/jobs/[id]/plan', answer: json(planState) }),
  /** What a change of the newest version would come to; it is planned when nothing else is to be done. */
  whatIf: endpoint({
    method: 'POST',
    path: '/api/jobs/[id]/what-if',
    body: z.object({ edits: z.array(edit).min(1).max(2000) }),
    answer: json(whatIf),
  }),
  /** Judges programs as they lie in files, in the given order, as if the newest version had been planned so. */
  prove: endpoint({
    method: 'POST',
    path: '/api/jobs/[id]/prove',
    body: z.object({
      files: z
        .array(z.object({ file: text.min(1).max(200), text }))
        .min(1)
        .max(MOST_FILES),
    }),
    answer: json(judged),
  }),
  /** What came of it. */
  proof: endpoint({ method: 'GET', path: '/api/jobs/[id]/prove/[proof]', answer: json(judged) }),
  /** The whole job with its files as one archive. */
  bundle: endpoint({ method: 'GET', path: '/api/jobs/[id]/bundle', answer: FILE }),
  /** The joined layers in an open format. */
  export: endpoint({
    method: 'GET',
    path: '/api/jobs/[id]/export/[kind]',
    query: z.object({ setup: text.optional() }),
    answer: FILE,
  }),
  /** The document as it is stored, whether this program can read it or not. */
  raw: endpoint({ method: 'GET', path: '/api/jobs/[id]/raw', answer: FILE }),
};
