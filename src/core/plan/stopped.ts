import { type Finding, type Found, identify } from '../findings/finding';

/** A job that is not planned, because of what is wrong in its document or of what its planning ran into. */
export class PlanStopped extends Error {
  constructor(readonly findings: Finding[]) {
    const where = findings
      .filter((f) => f.stops)
      .map((f) => `${f.rule} at ${f.subject.path?.join('.') ?? f.subject.pass ?? 'the document'}`);
    super(`planning is stopped: ${where.join(', ')}`);
  }

  /** Of what was found while planning. */
  static by(found: Found): PlanStopped {
    return new PlanStopped(identify([found], true));
  }
}
