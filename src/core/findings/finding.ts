import type { Edit } from './edit';

export type Severity = 'error' | 'warning' | 'note';

/** What a finding is about, by ids of the document and places in the written programs. */
export interface Subject {
  setup?: string;
  pass?: string;
  layer?: string;
  bit?: string;
  file?: string;
  line?: number;
  /** What the program itself says of that line: the nearest comment above it. */
  passage?: string;
  /** Place in the document, as steps from its root. */
  path?: (string | number)[];
  /** It shows only when the passes in reserve are cut too. */
  reserve?: true;
}

/** Numbers (mm, degrees, mm/min) and names that a text is made of. */
export type Figures = Record<string, number | string | boolean | string[]>;

/** A labelled change of the document that mends a finding. */
export interface Fix {
  /** Stands for its label among the texts. */
  id: string;
  figures: Figures;
  edits: Edit[];
}

/** Something the checks turned up; its text is made of its rule and figures by findings/texts. */
export interface Finding {
  /** The same for the same finding of the same document. */
  id: string;
  rule: string;
  severity: Severity;
  subject: Subject;
  /** Setup coordinates, mm; null where it lies nowhere in particular. */
  place: { x: number; y: number } | null;
  figures: Figures;
  fixes: Fix[];
  /** Whether nothing is planned before it is mended. */
  stops: boolean;
}

/** What a check says of a finding; ids are given to all of a list together. */
export type Found = Omit<Finding, 'id' | 'stops' | 'fixes' | 'figures'> & { figures?: Figures; fixes?: Fix[] };

const ORDER: Severity[] = ['error', 'warning', 'note'];

export function sortFindings(list: Finding[]): Finding[] {
  return [...list].sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity));
}

/** Findings with ids: the rule and what it is about, counted where a rule finds several things about the same. */
export function identify(found: Found[], stops: boolean): Finding[] {
  const seen = new Map<string, number>();
  return found.map((f) => {
    const { setup, pass, layer, bit, file, path, reserve } = f.subject;
    const about = [f.rule, setup, pass, layer, bit, file, path?.join('.'), reserve && 'with the reserve']
      .filter((s) => s !== undefined)
      .join('/');
    const n = seen.get(about) ?? 0;
    seen.set(about, n + 1);
    return {
      figures: {},
      fixes: [],
      ...f,
      id: n === 0 ? about : `${about}/${n + 1}`,
      stops: stops && f.severity === 'error',
    };
  });
}
