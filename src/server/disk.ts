/** Codes of a disk without room: of the system's calls, and of the database. */
const FULL = new Set(['ENOSPC', 'EDQUOT', 'SQLITE_FULL', 'SQLITE_IOERR_WRITE', 'SQLITE_IOERR_SHMSIZE']);

/** Whether an error says that the disk is full. Errors that came out of a thread may have kept their sentence only. */
export function isDiskFull(e: unknown): boolean {
  const { code, message, cause } = (e ?? {}) as { code?: unknown; message?: unknown; cause?: unknown };
  if (typeof code === 'string' && FULL.has(code)) return true;
  if (/ENOSPC|EDQUOT|no space left on device|database or disk is full/i.test(String(message ?? ''))) return true;
  return cause !== undefined && isDiskFull(cause);
}

/** What a person is told of it. @param folder whose disk it is */
export function diskFull(folder: string): string {
  return `the disk that holds ${folder} is full; make room on it and try again, nothing that was saved is lost`;
}
