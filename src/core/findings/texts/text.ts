import { sayLength } from '../../units/say';
import type { Figures } from '../finding';

/** What is the matter, and what would do, from a finding's figures. */
export type Text = (f: Figures) => [message: string, remedy: string];

/** A length among the figures, in words. */
export const len = (f: Figures, key: string) => sayLength(Number(f[key]));
/** A number among the figures. */
export const num = (f: Figures, key: string) => Number(f[key]);
