import type { HeightField } from '../field/height-field';
import type { Board } from '../plan/job';
import { formatLength } from '../units/length';
import type { CutoutProof } from './connect';
import type { Finding } from './finding';

const mm = (v: number) => formatLength(v);

/** What is left standing of an uneven board after its skim. */
export function unevenFindings(cut: HeightField): Finding[] {
  let most = 0;
  let at = 0;
  cut.data.forEach((v, k) => {
    if (v > most) [most, at] = [v, k];
  });
  if (most < 0.001) return [];
  return [
    {
      rule: 'left-over',
      severity: 'error',
      message: `the skim leaves the board ${mm(most)} too thick here`,
      remedy: 'plan the skim again, with a smaller stepover',
      x: cut.originX + (at % cut.width) * cut.cell,
      y: cut.originY + Math.floor(at / cut.width) * cut.cell,
    },
  ];
}

/** Tabs thinner than this hardly hold, mm (common practice, no source). */
const FRAIL_TAB = 1;

/** What holds a piece after its cut-out, where it is not its tabs alone or they hold badly. */
export function heldFindings(c: CutoutProof, board: Board): Finding[] {
  const out: Finding[] = [];
  if (c.joined) {
    out.push({
      rule: 'joined',
      severity: 'error',
      message: 'the piece is still joined to its frame here, and not by a tab',
      remedy: 'cut deeper into the spoilboard, or plan the cut-out again',
      ...c.joined,
    });
  }
  if (c.tabs.length === 0) {
    out.push({
      rule: 'loose',
      severity: 'warning',
      message: 'no tab holds the piece: it comes loose in the last lap',
      remedy: 'set tabs, or hold it by tape or vacuum',
      x: board.x / 2,
      y: board.y / 2,
    });
  }
  for (const t of c.tabs) {
    if (!t.holds) {
      out.push({
        rule: 'loose',
        severity: 'warning',
        message: 'this tab holds nothing: no wood stands on one side of it',
        remedy: 'move it to where the board goes on, or take a larger board',
        x: t.x,
        y: t.y,
      });
      continue;
    }
    if (t.thickness >= FRAIL_TAB && t.length > 0.5) continue;
    out.push({
      rule: 'loose',
      severity: 'warning',
      message: `a tab of ${mm(t.length)} x ${mm(t.thickness)} hardly holds the piece`,
      remedy: 'make the tabs thicker or longer, or move this one to where more of the board stands',
      x: t.x,
      y: t.y,
    });
  }
  return out;
}
