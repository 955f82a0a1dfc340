import type { Finding, Fix, Found } from '../finding';
import { DOCUMENT_TEXTS } from './document';
import { FIX_LABELS } from './fixes';
import { PLANNING_TEXTS } from './planning';
import { PROOF_TEXTS } from './proof';
import type { Text } from './text';

/** The texts of all rules. Planning never reads them: a better wording leaves every result as it is. */
const TEXTS: Record<string, Text> = { ...DOCUMENT_TEXTS, ...PLANNING_TEXTS, ...PROOF_TEXTS };

/** The rules that have a text. */
export const KNOWN_RULES = Object.keys(TEXTS);

/** What a finding says, and what would do. A rule without a text says its name and figures. */
export function textOf(f: Pick<Finding, 'rule' | 'subject' | 'figures'> | Found): {
  message: string;
  remedy: string;
} {
  const { file, line, passage, reserve } = f.subject;
  const text = TEXTS[f.rule];
  const [message, remedy] = text ? text(f.figures ?? {}) : [`${f.rule} ${JSON.stringify(f.figures ?? {})}`, ''];
  const at = line === undefined ? '' : `, line ${line}${passage ? ` (${passage})` : ''}`;
  const where = file === undefined ? '' : `${file}${at}: `;
  return { message: `${reserve ? 'when what is in reserve is cut too: ' : ''}${where}${message}`, remedy };
}

/** What a fix's button says. */
export function labelOf(fix: Pick<Fix, 'id' | 'figures'>): string {
  return FIX_LABELS[fix.id]?.(fix.figures) ?? fix.id;
}
