export const RULES = [
  'rapid-through-material',
  'gouge',
  'keep-cut',
  'outside-board',
  'outside-machine',
  'z-travel',
  'reach',
  'margin',
  'floor',
  'stepdown',
  'thickness',
  'spindle',
  'feed',
  'base',
  'thin-feature',
  'image-depth',
  'grid',
  'left-over',
  'nothing-to-cut',
  'missing-letters',
  'groove',
  'joined',
  'loose',
  'corner',
] as const;
export type Rule = (typeof RULES)[number];
export type Severity = 'error' | 'warning' | 'note';

/** Something the checks turned up: what, where (board coordinates, mm) and what would do. */
export interface Finding {
  rule: Rule;
  severity: Severity;
  message: string;
  remedy: string;
  x: number;
  y: number;
}

const ORDER: Severity[] = ['error', 'warning', 'note'];

export function sortFindings(list: Finding[]): Finding[] {
  return [...list].sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity));
}
