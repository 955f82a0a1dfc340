import type { Figures, Fix, Found, Subject } from '../../findings/finding';

/** A place in the document, as steps from its root. */
export type DocPath = (string | number)[];

/** Something wrong in a document, before anything is planned; it stops planning where it is an error. */
export function problem(
  rule: string,
  path: DocPath,
  figures: Figures,
  {
    fixes = [],
    subject = {},
    severity = 'error',
  }: { fixes?: Fix[]; subject?: Subject; severity?: Found['severity'] } = {},
): Found {
  return { rule, severity, subject: { ...subject, path }, place: null, figures, fixes };
}
