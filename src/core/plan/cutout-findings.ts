import type { Cutter } from '../cutter/cutter';
import type { CutoutFacts } from '../passes/cutout';
import type { Finding } from '../proof/finding';
import { formatLength, trimNumber } from '../units/length';
import type { Job } from './job';
import type { CutoutPass } from './pass';

const mm = (v: number) => formatLength(v);

/** What can be said of a cut-out before it is proven: through into what, down what, and which corners stay. */
export function cutoutFindings(job: Job, pass: CutoutPass, cutter: Cutter, facts: CutoutFacts): Finding[] {
  const out: Finding[] = [];
  const { board } = job;
  const middle = { x: board.x / 2, y: board.y / 2 };
  if (facts.rings.length === 0) {
    out.push({
      rule: 'nothing-to-cut',
      severity: 'error',
      message: 'the cut-out has no line: its outline is empty, or too narrow for the bit',
      remedy: 'choose another outline, or a smaller bit',
      ...middle,
    });
    return out;
  }
  if (!board.spoilboard) {
    out.push({
      rule: 'floor',
      severity: 'error',
      message: `the cut-out goes through the board${pass.into > 0 ? ` and ${mm(pass.into)} into the bed` : ' to the bed'}: there is no spoilboard`,
      remedy: 'lay a spoilboard under the board and say so on the board card',
      ...middle,
    });
  }
  const deep = (facts.tabTop - facts.bottom) / Math.max(1, facts.levels);
  if (!pass.tabs.sloped && facts.tabs.length > 0 && deep > cutter.maxPlungeDepth) {
    out.push({
      rule: 'loose',
      severity: 'warning',
      message: `behind every upright tab ${cutter.name} goes straight down up to ${mm(Math.min(pass.stepdown, facts.tabTop - facts.bottom))}, and it may plunge ${mm(cutter.maxPlungeDepth)}`,
      remedy: 'let the tabs be sloped',
      ...facts.tabs[0],
    });
  }
  for (const c of facts.corners) {
    const fits =
      c.most > 0
        ? job.cutters
            .filter((b) => b.shape === 'endmill' && b.diameter <= c.most)
            .sort((a, b) => b.diameter - a.diameter)[0]
        : undefined;
    out.push({
      rule: 'corner',
      severity: 'note',
      message: `${cutter.name} does not get into this inside corner: ${trimNumber(c.area, 1)} mm² stay`,
      remedy:
        c.most === 0
          ? 'it is too sharp for any bit; finish it with a knife'
          : `a bit of up to ${trimNumber(c.most, 2)} mm goes in${fits ? `; ${reachOf(fits, facts)}` : ', and this job has none'}`,
      x: c.x,
      y: c.y,
    });
  }
  return out;
}

/** Whether a bit gets down to the bottom from the ground that is open already. */
function reachOf(c: Cutter, facts: CutoutFacts): string {
  const below = facts.start - facts.bottom;
  if (c.fluteLength < below)
    return `${c.name} has flutes of ${mm(c.fluteLength)} for the ${mm(below)} below the trench`;
  if (c.stickOut < -facts.bottom && c.holderDiameter > c.diameter)
    return `${c.name} sticks out ${mm(c.stickOut)} for a depth of ${mm(-facts.bottom)}: its holder meets the board unless the trench is as wide`;
  return `${c.name} reaches down`;
}
