import type { Cutter } from '@/core/cutter/cutter';
import type { Job } from '@/core/doc/job';
import type { MeshSource } from '@/core/doc/layer';
import type { Machine } from '@/core/doc/machine';
import type { Material } from '@/core/doc/material';
import type { Grid } from '@/core/field/height-field';
import type { Edit } from '@/core/findings/edit';
import { unpackStage } from '@/core/plan/pack';
import type { PlannedProgram } from '@/core/plan/programs';
import type { PlanSummary, summaryOf } from '@/core/plan/summary';
import type { PlanView } from '@/core/plan/view';
import type { SourceInfo } from '@/core/sources/inspect';

/** An answer of the server that refuses something; the message is for the person. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly details: Record<string, unknown>,
  ) {
    super(message);
  }
}

export type ProgramInfo = Omit<PlannedProgram, 'text'> & { bytes: number };

/** The summary of a plan of a whole job. */
export type JobSummary = Omit<PlanSummary, 'programs'> & { programs: ProgramInfo[] };

/** The summary as one setup sees it. */
export type Summary = NonNullable<ReturnType<typeof summaryOf<ProgramInfo>>>;

export interface JobPlan {
  id: string;
  revision: string;
  status: 'queued' | 'running' | 'done' | 'failed' | 'cancelled' | 'interrupted';
  message: string | null;
  progress: { name: string; share: number; secondsLeft: number | null } | null;
  summary: JobSummary | null;
  /** Proven by an older version of this program: to be proven again. */
  older: boolean;
  /** Proven again: whether its programs came out the same. */
  again: 'same' | 'changed' | null;
}

/** A plan as one setup sees it. */
export type PlanInfo = Omit<JobPlan, 'summary'> & { summary: Summary | null };

/** What a change of a job comes to. */
export interface WhatIf {
  status: 'known' | 'planning' | 'stopped' | 'failed';
  seconds: number | null;
  errors: number;
}

export interface JobInfo {
  id: string;
  revision: string;
  document: Job;
  updated: string;
  kept: { id: string; created: string }[];
  plan?: JobPlan | null;
}

export interface JobListEntry {
  id: string;
  name: string;
  order: string;
  board: string;
  updated: string;
  revision: string;
  plan: { id: string; status: JobPlan['status']; revision: string } | null;
  summary: { seconds: number; errors: number; warnings: number } | null;
  older: boolean;
  /** Why its stored document cannot be read; null when it can. */
  unreadable: string | null;
  /** What in its document stops planning. */
  problems: number;
  /** The setup that its picture is of. */
  setup: string | null;
}

/** A job that can be brought back until a day. */
export interface RemovedJobInfo {
  id: string;
  removed: string;
  until: string;
  name: string;
  order: string;
  board: string;
}

export interface LibraryInfo {
  machines: Machine[];
  cutters: Cutter[];
  materials: Material[];
}

export interface AssetInfo {
  hash: string;
  file: string;
  size: number;
  info: SourceInfo;
}

async function call<T>(method: string, url: string, body?: unknown): Promise<T> {
  let res: Response;
  try {
    res = await fetch(url, {
      method,
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new ApiError('the server does not answer; start it again, nothing that was saved is lost', 0, {});
  }
  const json = (await res.json().catch(() => ({ error: 'the answer could not be read' }))) as Record<string, unknown>;
  if (!res.ok) throw new ApiError(String(json.error), res.status, json);
  return json as T;
}

export const api = {
  jobs: () => call<JobListEntry[]>('GET', '/api/jobs'),
  library: () => call<LibraryInfo>('GET', '/api/library'),
  job: (id: string) => call<JobInfo>('GET', `/api/jobs/${id}`),
  /** A job of a stored relief, or an empty board. */
  createJob: (asset?: string) => call<JobInfo>('POST', '/api/jobs', { asset }),
  history: (id: string) => call<HistoryInfo>('GET', `/api/jobs/${id}/history`),
  moveHead: (id: string, from: string, to: string) => call<JobInfo>('PUT', `/api/jobs/${id}/head`, { from, to }),
  versions: (id: string) => call<VersionInfo[]>('GET', `/api/jobs/${id}/versions`),
  nameVersion: (id: string, revision: string, name: string) =>
    call<VersionInfo[]>('POST', `/api/jobs/${id}/versions`, { revision, name }),
  removeVersion: (id: string, version: string) => call<VersionInfo[]>('DELETE', `/api/jobs/${id}/versions/${version}`),
  patterns: () => call<PatternInfo[]>('GET', '/api/patterns'),
  keepPattern: (p: Omit<PatternInfo, 'id' | 'info' | 'file'>) => call<PatternInfo[]>('POST', '/api/patterns', p),
  describePattern: (id: string, p: Pick<PatternInfo, 'name' | 'tags' | 'from'>) =>
    call<PatternInfo[]>('PUT', `/api/patterns/${id}`, p),
  removePattern: (id: string) => call<PatternInfo[]>('DELETE', `/api/patterns/${id}`),
  asset: (hash: string) => call<AssetInfo>('GET', `/api/assets/${hash}`),
  saveJob: (id: string, base: string, document: Job) => call<JobInfo>('PUT', `/api/jobs/${id}`, { base, document }),
  removeJob: (id: string) => call<object>('DELETE', `/api/jobs/${id}`),
  removed: () => call<RemovedJobInfo[]>('GET', '/api/jobs/removed'),
  bringBack: (id: string) => call<object>('POST', `/api/jobs/${id}/back`),
  revision: (id: string, revision: string) => call<Job>('GET', `/api/jobs/${id}/revisions/${revision}`),
  settleKept: (id: string) => call<object>('DELETE', `/api/jobs/${id}/kept`),
  plan: (id: string) => call<JobPlan>('POST', `/api/jobs/${id}/plan`),
  cancelPlan: (plan: string) => call<JobPlan>('DELETE', `/api/plans/${plan}`),
  whatIf: (id: string, edits: Edit[]) => call<WhatIf>('POST', `/api/jobs/${id}/what-if`, { edits }),
  saveCutter: (c: Cutter) => call<Cutter>('PUT', '/api/cutters', c),
  saveMachine: (m: Machine) => call<Machine>('PUT', '/api/machines', m),
  orient: (hash: string, turns: MeshSource['turns'], mirror: boolean) =>
    call<SourceInfo>('POST', `/api/assets/${hash}`, { turns, mirror }),
  section: (plan: string, setup: string, s: { x0: number; y0: number; x1: number; y1: number }, n: number) =>
    call<Record<string, number[]>>(
      'GET',
      `/api/plans/${plan}/section?setup=${encodeURIComponent(setup)}&x0=${s.x0}&y0=${s.y0}&x1=${s.x1}&y1=${s.y1}&n=${n}`,
    ),
};

/** A pattern of the drawer. */
export interface PatternInfo {
  id: string;
  name: string;
  tags: string[];
  from: string;
  size: { x: number; y: number } | null;
  rise: number | null;
  file: string;
  hash: string;
  info: SourceInfo;
}

export interface VersionInfo {
  id: string;
  name: string;
  revision: string;
  created: string;
}

export interface HistoryInfo {
  chain: { id: string; document: Job }[];
  at: number;
}

/** Uploads a file as it is: a relief or a font. `onProgress` gets the share that has gone. */
export const uploadAsset = (file: File, onProgress: (share: number) => void) =>
  upload<AssetInfo>(`/api/assets?name=${encodeURIComponent(file.name)}`, file, onProgress);

/** Uploads a job that was exported, and makes it a job again. */
export const uploadJob = (file: File, onProgress: (share: number) => void) =>
  upload<JobInfo>(`/api/jobs/import?name=${encodeURIComponent(file.name)}`, file, onProgress);

/** Puts a backup in the place of this shop. */
export async function restoreBackup(file: File, replace: boolean): Promise<RestoredInfo> {
  const res = await fetch(`/api/shop/backup${replace ? '?replace=yes' : ''}`, { method: 'PUT', body: file });
  const json = (await res.json().catch(() => ({ error: 'the answer could not be read' }))) as Record<string, unknown>;
  if (!res.ok) throw new ApiError(String(json.error), res.status, json);
  return json as unknown as RestoredInfo;
}

/** What a backup has brought back. */
export interface RestoredInfo {
  jobs: number;
  files: number;
  before: string | null;
}

function upload<T>(url: string, file: File, onProgress: (share: number) => void): { done: Promise<T>; cancel(): void } {
  const xhr = new XMLHttpRequest();
  const done = new Promise<T>((resolve, reject) => {
    xhr.open('PUT', url);
    xhr.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    xhr.onerror = () => reject(new ApiError(`${file.name}: the upload broke off; try again`, 0, {}));
    xhr.onabort = () => reject(new ApiError(`${file.name}: the upload was cancelled`, 0, {}));
    xhr.onload = () => {
      let json: Record<string, unknown> = {};
      try {
        json = JSON.parse(xhr.responseText);
      } catch {
        json = { error: `${file.name}: the server's answer could not be read` };
      }
      if (xhr.status === 200) resolve(json as T);
      else reject(new ApiError(String(json.error), xhr.status, json));
    };
    xhr.send(file);
  });
  return { done, cancel: () => xhr.abort() };
}

export async function fetchView(plan: string, setup: string): Promise<PlanView> {
  const res = await fetch(`/api/plans/${plan}/view?setup=${encodeURIComponent(setup)}`);
  if (!res.ok) throw new ApiError('the surfaces of this plan are gone; plan it again', res.status, {});
  const { meta, arrays } = unpackStage(await res.arrayBuffer());
  return { grid: (meta as { grid: Grid }).grid, ...(arrays as unknown as Omit<PlanView, 'grid'>) };
}
