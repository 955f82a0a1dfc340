import { MM_PER_INCH } from './length';

/** A feed that could not be read; the message names the text and what would do. */
export class FeedError extends Error {}

const FEED = /^\s*(\d*\.?\d+)\s*(mm\/min|mm\/s|in\/min|ipm|in\/s)?\s*$/i;

/** Reads a feed as a person writes it. @param bare the unit where none is given @returns mm/min @throws FeedError */
export function parseFeed(text: string, bare: 'mm/min' | 'in/min' = 'mm/min'): number {
  const m = FEED.exec(text.replace(',', '.'));
  if (!m) throw new FeedError(`"${text}" is not a feed; write it like "1800", "30 mm/s" or "70 in/min"`);
  const unit = (m[2] ?? bare).toLowerCase();
  const inches = unit.startsWith('in') || unit === 'ipm';
  const v = Number(m[1]) * (inches ? MM_PER_INCH : 1) * (unit.endsWith('/s') ? 60 : 1);
  if (!(v > 0)) throw new FeedError('a feed must be more than 0');
  return v;
}
