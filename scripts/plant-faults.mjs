// Plants faults one by one in a copy of the project, and tells which of its tests notice each. Run by hand, not in CI:
//   node scripts/plant-faults.mjs [part of a name]
// Each fault: file, what stands there, what is put in its place, and the test files that should fall.
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const C = 'src/core/';
const S = 'src/server/';
const motion = [`${C}motion/motion.test.ts`];
const passes = [`${C}passes/passes.test.ts`, `${C}passes/ways.test.ts`, `${C}plan/clean-cuts.test.ts`];
const program = [`${C}program/program.test.ts`];
const rules = [`${C}proof/checks/checks.test.ts`];
const arrange = [`${C}arrange/render.test.ts`, `${C}arrange/joins.test.ts`, `${C}arrange/silhouette.test.ts`];
const E = 'src/ui/editor/';
const editor = [`${E}editor.test.ts`, `${E}place.test.ts`];
const gate = [`${S}gate/gate.test.ts`];
const server = [`${S}server.test.ts`, `${S}keeping.test.ts`];

/** [name, file, from, to, tests] */
const FAULTS = [
  [
    'faces: turned over near to far, rows stay where they are',
    `${C}setup/frame.ts`,
    'out.set(data.subarray(from, from + width), to);',
    'out.set(data.subarray(from, from + width), from);',
    [`${C}setup/frame.test.ts`],
  ],
  [
    'faces: an opening that is wanted wants all others too',
    `${C}proof/web.ts`,
    'if (open.has(k)) region.wanted = true;',
    'if (open.size > 0) region.wanted = true;',
    [`${C}proof/web.test.ts`],
  ],
  [
    'faces: dowels that lie even about the middle are right',
    `${C}passes/dowels.ts`,
    "? 'symmetric'",
    '? null',
    [`${C}passes/dowels.test.ts`],
  ],
  [
    'faces: dowels are set where clamps stand',
    `${C}passes/dowels.ts`,
    'return [...cut, ...held].map(',
    'return [...cut].map(',
    [`${C}passes/dowels.test.ts`],
  ],
  [
    'faces: a cut-out counts its tabs from where the wood is thickest',
    `${C}passes/cutout/depths.ts`,
    '-least + pass.tabs.thickness',
    '-most + pass.tabs.thickness',
    [`${C}plan/cut-out-behind.test.ts`],
  ],
  [
    'faces: the second side does not know what the first has left',
    `${C}plan/plan-setup.ts`,
    'under: undersideBefore(view, before)',
    'under: null',
    [`${C}plan/cut-out-behind.test.ts`],
  ],
  [
    'faces: a board beside its place is turned about its corner',
    `${C}proof/study.ts`,
    'const [mx, my] = [board.x / 2, board.y / 2];',
    'const [mx, my] = [0, 0];',
    [`${C}proof/study.test.ts`],
  ],
  [
    'faces: a board that is turned over needs no place to come back to',
    `${C}proof/checks/registration.ts`,
    "if (setup.register !== 'none' && !without) return [];",
    'return [];',
    [`${C}plan/fixes.test.ts`],
  ],
  [
    "feeds: a person's own figure is moved into the band",
    `${C}doc/own-feeds.ts`,
    'if (found) return',
    'if (found && found.feed < 0) return',
    [`${C}doc/own-feeds.test.ts`],
  ],
  [
    'wood: what the path has taken since is not known',
    `${C}passes/wood.ts`,
    'removeStock(this.field, this.taking, partsOf(path, seen, Infinity).segments);',
    '',
    [`${C}passes/wood.test.ts`],
  ],
  [
    'wood: a ring is left out where wood stands at its side only',
    `${C}passes/wood.ts`,
    'const n = profile.R / cell;',
    'const n = profile.R / 2 / cell;',
    [`${C}passes/wood.test.ts`],
  ],
  [
    'rings: a ring that has been half round counts as cut',
    `${C}passes/rings.ts`,
    'loop.been = false;',
    '',
    ['demo/programs.test.ts'],
  ],
  [
    'rings: a place inside a ring is taken for one outside',
    `${C}passes/rings.ts`,
    'isInside([xy], cut.x, cut.y) === ringArea(xy) > 0',
    'isInside([xy], cut.x, cut.y) === ringArea(xy) < 0',
    [`${C}passes/milling.test.ts`],
  ],
  [
    'lines: parts in air are cut as well',
    `${C}passes/finish/along.ts`,
    'for (const points of standingParts(whole, standing)) {',
    'for (const points of [whole]) {',
    [`${C}plan/rest.test.ts`],
  ],
  [
    'reserve: what comes after a pass in reserve is planned on what it leaves',
    `${C}plan/plan-passes.ts`,
    'Object.assign(ctx, before);',
    '',
    [`${C}plan/reserve.test.ts`],
  ],
  [
    'reserve: a pass in reserve shares a file with the next',
    `${C}plan/programs.ts`,
    'together && isReserve(last[0].pass) === reserve',
    'together',
    [`${C}plan/reserve.test.ts`],
  ],
  [
    'reserve: the second order is not proven',
    `${C}plan/prove-orders.ts`,
    'reserve.length === 0',
    'reserve.length >= 0',
    [`${C}plan/reserve.test.ts`],
  ],
  [
    'reserve: its time counts',
    `${C}plan/summary.ts`,
    '(p.reserve ? 0 : p.seconds)',
    'p.seconds',
    [`${C}plan/reserve.test.ts`],
  ],
  [
    'grooves: lines stay on the middle of the outline',
    `${C}arrange/vee-walls.ts`,
    'return [x - gx * by, y - gy * by];',
    'return [x, y];',
    [`${C}arrange/vee-walls.test.ts`],
  ],
  [
    'grooves: the highest cone stands at the foot of a place',
    `${C}arrange/vee-walls.ts`,
    'steep > 0 ? (h * slope) / Math.sqrt(steep)',
    'steep > 0 ? 0',
    [`${C}arrange/vee-walls.test.ts`],
  ],
  [
    'grooves: ground that changes beside a window is forgotten',
    `${C}arrange/engine.ts`,
    'reach > 0 ? out.map',
    'reach < 0 ? out.map',
    [`${C}arrange/vee-walls.test.ts`],
  ],
  [
    'flat walls: laps a hundredth too near',
    `${C}passes/flat/wall-laps.ts`,
    '...offsetPolygon(polygon, -R, ARC)',
    '...offsetPolygon(polygon, -R + 0.02, ARC)',
    [`${C}plan/flat-walls.test.ts`],
  ],
  [
    'flat walls: the other way of milling runs the same way round',
    `${C}passes/flat/wall-laps.ts`,
    "(milling === 'climb') === wallRight",
    'true',
    [`${C}plan/flat-walls.test.ts`],
  ],
  [
    'ground: board that goes on to the edge is an island',
    `${C}passes/ground.ts`,
    'inner[part] = false;',
    '',
    [`${C}passes/ground.test.ts`],
  ],
  [
    'tabs: waste that the cut frees holds a tab',
    `${C}passes/cutout/beside.ts`,
    '|| !within(freed, bx, by)',
    '|| true',
    [`${C}passes/cutout/tabs.test.ts`],
  ],
  [
    'a ramp that goes on over a low wall',
    `${C}motion/enter.ts`,
    '(steep && points[i + 2] - points[foot - 1] > maxPlungeDepth)',
    'false',
    [`${C}motion/enter.test.ts`],
  ],
  [
    'down a slope as fast as along it',
    `${C}motion/path.ts`,
    'plunge * Math.max(1, aside / -dz), dz',
    'plunge * Math.max(9, aside / -dz), dz',
    motion,
  ],
  [
    'slopes that the proof does not look at',
    `${C}proof/checks/plunge.ts`,
    'run.cutter.plunge * Math.max(1, aside / sure)',
    'run.cutter.plunge * Math.max(1, 9 * aside / sure)',
    [`${C}proof/bad-programs.test.ts`],
  ],
  [
    'no line in a crease',
    `${C}passes/finish/bands.ts`,
    'tip.heightAt(x, y) > SAG;',
    'tip.heightAt(x, y) > 90 * SAG;',
    [`${C}passes/finish/bands.test.ts`],
  ],
  [
    'lines twice as far apart',
    `${C}passes/finish/bands.ts`,
    '(2 * (deep[k] - 0.5) * cell) / stepover - 1',
    '((deep[k] - 0.5) * cell) / stepover - 1',
    [`${C}passes/finish/bands.test.ts`, `${C}plan/rest.test.ts`],
  ],
  [
    'a first lap within the upcut part',
    `${C}passes/cutout/depths.ts`,
    'cutter.maxStepdown, upcut + OVER',
    'cutter.maxStepdown, upcut - OVER',
    [`${C}plan/cutout.test.ts`],
  ],
  [
    'a trench without room for the holder',
    `${C}passes/cutout/room.ts`,
    'axis + c.holderDiameter / 2 + CLEAR',
    'axis + CLEAR',
    [`${C}passes/cutout/room.test.ts`],
  ],
  [
    'corners faster than they may be',
    `${C}motion/time.ts`,
    'Math.sqrt(0.5 * (1 - cosine))',
    'Math.sqrt(0.5 * (1 + cosine))',
    motion,
  ],
  [
    'no stop where a path turns back',
    `${C}motion/time.ts`,
    'if (cosine > 0.999999) v2 = 0;',
    'if (cosine > 0.999999) v2 = 900;',
    motion,
  ],
  [
    'half the way to slow down',
    `${C}motion/time.ts`,
    'entry[i + 1] + 2 * accel[i] * length[i]',
    'entry[i + 1] + 8 * accel[i] * length[i]',
    motion,
  ],
  [
    'sinking at full feed',
    `${C}motion/path.ts`,
    'if (dz >= 0 || l <= 0) return feed;',
    'if (l !== -1) return feed;',
    [...motion, ...passes],
  ],
  [
    'slots at the feed of a cut at the side',
    `${C}motion/ease.ts`,
    'return EASED.find((share) => share * chip <= most) ?? EASED[EASED.length - 1];',
    'return most > 0 ? 1 : 0.3;',
    [`${C}motion/ease.test.ts`],
  ],
  [
    'a feed that is eased at the wrong end of a move',
    `${C}motion/path.ts`,
    'const back = q >= 4 ? 1 - end : 0;',
    'const back = q >= 4 && end < 1 ? end : 0;',
    [`${C}motion/ease.test.ts`],
  ],
  [
    'the proof does not see what a bit takes a second',
    `${C}proof/checks/load.ts`,
    'if (times <= MOST) return [];',
    'if (times <= 2 * MOST) return [];',
    [`${C}proof/bad-programs.test.ts`],
  ],
  [
    'rings that never turn round',
    `${C}passes/rings.ts`,
    "if (woodRight === (milling === 'climb')) return i;",
    "if (woodRight || milling === 'climb') return i;",
    [`${C}passes/milling.test.ts`],
  ],
  [
    'one-way rows with their wood on the other side',
    `${C}passes/finish/order.ts`,
    "const turned = milling === 'climb';",
    "const turned = milling !== 'climb';",
    [`${C}passes/milling.test.ts`],
  ],
  [
    'a pocket as wide as its cells say',
    `${C}passes/pocket/plan.ts`,
    'for (const ring of here(ctx, room)) await lastAlong(way, ring, open);',
    'for (const ring of here(ctx, open)) await lastAlong(way, ring, open);',
    [`${C}plan/pocket.test.ts`],
  ],
  [
    'laps along a pocket that go only where cells tell of wood',
    `${C}passes/pocket/walls.ts`,
    '(side === pass.last && beside(p))',
    '(side < 0 && beside(p))',
    [`${C}plan/pocket.test.ts`],
  ],
  [
    'more at once than a bit may take, where it is asked for',
    `${C}passes/bearable.ts`,
    '{ ...pass, stepdown: maxStepdown }',
    '{ ...pass, stepdown: pass.stepdown }',
    [`${C}plan/no-harm.test.ts`],
  ],
  [
    'tabs that run into each other',
    `${C}passes/cutout/tabs.ts`,
    '(gap - 1 - (2 * foot * n) / total) / 2',
    'gap / 3',
    [`${C}passes/cutout/tabs.test.ts`],
  ],
  [
    'a way back over letters that is longer than a hop',
    `${C}passes/letter/web.ts`,
    'if (way > this.reach',
    'if (way > 2 * this.reach',
    [`${C}passes/letter/web.test.ts`],
  ],
  [
    'a V tip that sinks between cells',
    `${C}passes/letter/lines.ts`,
    'Math.max(surface - depth, own)',
    'surface - depth + 0 * own',
    [`${C}plan/no-harm.test.ts`],
  ],
  ['ramps twice as steep', `${C}motion/enter.ts`, 'Math.tan(angle * rad)', 'Math.tan(2 * angle * rad)', passes],
  [
    'a helix that climbs between its steps',
    `${C}passes/hole/plan.ts`,
    'top - (fall * k) / steps)',
    'top - (fall * (k % 2 ? k + 3 : k)) / steps)',
    [`${C}passes/hole/plan.test.ts`],
  ],
  [
    'a helix without its last turn',
    `${C}passes/hole/plan.ts`,
    'k <= (turns + 1) * steps',
    'k <= turns * steps',
    [`${C}passes/hole/plan.test.ts`],
  ],
  [
    'pecks that go too deep',
    `${C}passes/hole/plan.ts`,
    'top + ((bottom - top) * n) / pecks, cutter.plunge',
    'top + ((bottom - top) * (n + 0.2)) / pecks, cutter.plunge',
    [`${C}passes/hole/plan.test.ts`],
  ],
  [
    'pecks without clearing the chips',
    `${C}passes/hole/plan.ts`,
    'if (n > 1) {',
    'if (n > 99) {',
    [`${C}passes/hole/plan.test.ts`],
  ],
  [
    'the kept board grown by a cell',
    `${C}arrange/target.ts`,
    'return outside <= trench + wider;',
    'return outside <= trench + wider - 0.4;',
    [`${C}plan/clean-cuts.test.ts`],
  ],
  [
    'a sunk piece cuts around itself',
    `${C}arrange/target.ts`,
    "if (mode === 'sunk' && outside > 0) return false;",
    '',
    [`${C}plan/clean-cuts.test.ts`, `${C}plan/areas.test.ts`],
  ],
  [
    'the piece seated without its skin',
    `${C}arrange/target.ts`,
    '-skin - peak',
    '-peak',
    [`${C}plan/variants.test.ts`, `${C}plan/clean-cuts.test.ts`],
  ],
  ['carving that ignores how much counts', `${C}arrange/compose.ts`, 'now = was - a * v', 'now = was - v', arrange],
  ['lowest taken as highest', `${C}arrange/compose.ts`, 'now = v < was ?', 'now = v > was ?', arrange],
  [
    'a sunk, carved piece without cover',
    `${C}arrange/compose.ts`,
    "const marks = sunk || op.join === 'stack'",
    "const marks = op.join === 'stack'",
    [`${C}plan/clean-cuts.test.ts`, ...arrange],
  ],
  [
    'a press that does not press',
    `${C}arrange/compose.ts`,
    'return z > above ? above + (z - above) * factor : z;',
    'return z;',
    arrange,
  ],
  [
    'rows into the trench wall',
    `${C}passes/rough/rows.ts`,
    '>= RIM + 0.5',
    '>= RIM - 1.5',
    [`${C}plan/clean-cuts.test.ts`],
  ],
  [
    'rows that overrun their ends',
    `${C}passes/rough/rows.ts`,
    '        last = u;',
    '        last = u + 16 * step;',
    [`${C}plan/clean-cuts.test.ts`],
  ],
  [
    'rows too far apart',
    `${C}passes/rough/rows.ts`,
    'v += pass.stepover',
    'v += 2.4 * pass.stepover',
    [`${C}plan/clean-cuts.test.ts`],
  ],
  ['no M5 before a bit is changed', `${C}program/writer.ts`, "had === 0 ? [] : ['M5']", 'had === 0 ? [] : []', program],
  [
    'heights rounded downwards',
    `${C}program/writer.ts`,
    'Math.ceil((z - zero.z)',
    'Math.floor((z - zero.z)',
    [...program, `${C}plan/zeros.test.ts`],
  ],
  [
    'a program that ends with the spindle turning',
    `${C}program/writer.ts`,
    "lines.push('M5', dialect.end)",
    'lines.push(dialect.end)',
    program,
  ],
  [
    'arcs about the wrong middle',
    `${C}program/writer.ts`,
    '(v - zero[axis]) * scale - Number(written)',
    '(v - zero[axis]) * scale + Number(written)',
    [...program, `${C}plan/holes.test.ts`, `${C}plan/cutout.test.ts`],
  ],
  ['a spindle too slow goes unsaid', `${C}proof/checks/spindle-speed.ts`, ' || s < minRpm', '', rules],
  [
    'bites over a narrow width only go unsaid',
    `${C}proof/checks/bite.ts`,
    'highWidth(run, i) > WIDE * run.cutter.diameter',
    'highWidth(run, i) > 2 * run.cutter.diameter',
    [...rules, `${C}proof/bad-programs.test.ts`],
  ],
  [
    'the proof looks with the cells that were planned on',
    `${C}field/height-field.ts`,
    'originX: g.originX + g.cell / 4, originY: g.originY + g.cell / 4',
    'originX: g.originX, originY: g.originY',
    [`${C}plan/letters.test.ts`, 'src/cli/cli.test.ts'],
  ],
  [
    'nothing is looked at closer',
    `${C}proof/closer.ts`,
    'if (e <= OVERLOOKED || e - map[k] <= GOUGE_LIMIT) continue;',
    'continue;',
    [`${C}proof/closer.test.ts`],
  ],
  [
    'a window is told the moves of one square',
    `${C}proof/moves-by-place.ts`,
    'if (a === Math.max(a0, first) && b === Math.max(b0, lowest))',
    'if (a === a0 && b === b0)',
    [`${C}proof/moves-by-place.test.ts`],
  ],
  [
    'what a setup has left is written over by the next',
    `${C}proof/solid.ts`,
    'const next = top.slice();',
    'const next = top;',
    [`${C}proof/solid.test.ts`],
  ],
  [
    'what threads have drawn is taken for another window',
    `${S}kernel-pool.ts`,
    'each(d, from + n);',
    'each(d, n);',
    [`${S}kernel-pool.test.ts`],
  ],
  [
    'finishing goes into untouched wood at once',
    `${C}passes/finish/go-down.ts`,
    'if (tip >= 0 || under.data[k] - tip <= most) continue;',
    'continue;',
    [`${C}plan/deep-slots.test.ts`],
  ],
  [
    'rows go on through air',
    `${C}passes/finish/rest.ts`,
    'if (over <= tolerance + ridge) continue;',
    'something[k] = 1;',
    [`${C}plan/rest.test.ts`],
  ],
  [
    'bits go straight down as deep as it takes',
    `${C}motion/enter.ts`,
    'if (top - z0 <= bit.maxPlungeDepth) {',
    'if (top - z0 <= 1e3) {',
    [`${C}motion/enter.test.ts`],
  ],
  [
    'ramps turn round at the end of a long move',
    `${C}motion/enter.ts`,
    'const share = long > 0 ? Math.min(1, (reach - gone) / long) : 1;',
    'const share = 1;',
    [`${C}motion/enter.test.ts`],
  ],
  [
    'what a pass has cut itself counts as standing',
    `${C}passes/live.ts`,
    'if (d <= R) top = Math.min(top, b.z + profileHeight(profile, d));',
    '',
    [`${C}passes/live.test.ts`],
  ],
  [
    'air is counted for the pass before',
    `${C}proof/figures.ts`,
    'part.add(run, [firstFrom(begin[p]),',
    'part.add(run, [firstFrom(begin[Math.max(0, p - 1)]),',
    [`${C}proof/figures.test.ts`],
  ],
  [
    'what programs cut beyond the plots goes unseen',
    `${C}plan/proof-parts.ts`,
    'if (more.length === 0) return',
    'if (more.length >= 0) return',
    [`${C}plan/plots.test.ts`],
  ],
  [
    'every plot is seated by its own layers',
    `${C}plan/plan-setup.ts`,
    'facts: joinFacts(facts),',
    'facts: facts.at(-1),',
    [`${C}plan/plots.test.ts`],
  ],
  [
    'every plot cuts out the whole outline',
    `${C}passes/cutout/line.ts`,
    'const own = (l: CutLine) => here(l.ring[0], l.ring[1]);',
    'const own = (l: CutLine) => here !== null && l.ring.length > 0;',
    [`${C}plan/plots.test.ts`],
  ],
  [
    'plots that come near each other stay apart',
    `${C}outline/boxes.ts`,
    'i = 0;\n    }',
    'i = out.length;\n    }',
    [`${C}outline/boxes.test.ts`],
  ],
  [
    'beside a plot there is nothing',
    `${C}proof/parted-offset.ts`,
    'padField(pooled, Math.ceil(reach / pooled.cell) + 1, around.height)',
    'padField(pooled, Math.ceil(reach / pooled.cell) + 1, -1e6)',
    [`${C}proof/parted-offset.test.ts`],
  ],
  [
    'edges between cells go unseen by finishing',
    `${C}arrange/edges.ts`,
    'if (!(lack > 0)) return;',
    'return;',
    [`${C}arrange/edges.test.ts`],
  ],
  [
    'straight lines over cliffs',
    `${C}passes/finish/raster.ts`,
    'if (cliff) {',
    'if (cliff && k < 0) {',
    [`${C}plan/rest.test.ts`],
  ],
  [
    'necks are told wider than they are',
    `${C}field/least-cut.ts`,
    'let sum = net.direct;',
    'let sum = net.direct + 1;',
    [`${C}field/least-cut.test.ts`],
  ],
  [
    'a plunge that the machine does not reach goes unsaid',
    `${C}proof/checks/feed.ts`,
    ' || c.plunge > mostDown',
    '',
    rules,
  ],
  [
    'any back counts as flat',
    `${C}sources/orient.ts`,
    'best.area >= 0.2 * plan',
    'best.area >= 0.02 * plan',
    [`${C}sources/meshes.test.ts`],
  ],
  [
    'holes of an outline stay when they are to go',
    `${C}outline/union.ts`,
    'export function dropHoles(polygon: Polygon): Polygon {',
    'export function dropHoles(polygon: Polygon): Polygon {\n  if (polygon.length > 0) return polygon;',
    [`${C}outline/outline.test.ts`, `${C}arrange/silhouette.test.ts`],
  ],
  [
    'ridges reckoned from the whole stepover',
    `${C}cutter/cutter.ts`,
    'Math.min(p.R, stepover / 2)',
    'Math.min(p.R, stepover)',
    [`${C}cutter/cutter.test.ts`],
  ],
  [
    'the profile of a bull-nose moved',
    `${C}cutter/cutter.ts`,
    'const e = r - (p.R - p.p0);',
    'const e = r - p.R;',
    [`${C}cutter/cutter.test.ts`],
  ],
  [
    'terraces smoothed by a whole step',
    `${C}sources/terraces.ts`,
    'const half = found.step / 2;',
    'const half = found.step;',
    [`${C}sources/tones.test.ts`],
  ],
  [
    'terraces smoothed without giving back',
    `${C}sources/terraces.ts`,
    'once[k] += again[k]',
    'once[k] += 0 * again[k]',
    [`${C}sources/tones.test.ts`],
  ],
  [
    'distances the wrong way round',
    `${C}arrange/place.ts`,
    'g.fromSide) + g.distance',
    'g.fromSide) - g.distance',
    [`${C}arrange/place.test.ts`],
  ],
  [
    'pictures that unpack to ten times their pixels',
    `${C}sources/png-chunks.ts`,
    'if (got > wanted)',
    'if (got > 1e4 * wanted)',
    [`${C}sources/png-chunks.test.ts`],
  ],
  [
    'components placed by a wrong matrix',
    `${C}sources/three-mf.ts`,
    'a[3 * r + 1] * b[3 + c]',
    'a[3 * r + 1] * b[c]',
    [`${C}sources/meshes.test.ts`],
  ],
  ['frozen layers drawn', `${C}sources/dxf.ts`, 'l.frozen || ', '', [`${C}sources/drawings-of-others.test.ts`]],
  [
    'uses without their place',
    `${C}sources/svg.ts`,
    "if (tag !== 'symbol') {\n      this.walk([target], own,",
    "if (tag !== 'symbol') {\n      this.walk([target], chain,",
    [`${C}sources/drawings-of-others.test.ts`],
  ],
  [
    'a board turned over the wrong way',
    `${C}proof/solid.ts`,
    '-frame.thickness - own[k]',
    'frame.thickness - own[k]',
    [`${C}plan/two-faces.test.ts`],
  ],
  [
    'an id that is there twice goes unsaid',
    `${C}doc/problems/ids.ts`,
    'if (!seen.has(id)) {',
    'if (seen.size >= 0) {',
    [`${C}plan/problems.test.ts`],
  ],
  [
    'moves without end',
    `${C}motion/path.ts`,
    'if (this.used >= 4 * MAX_MOVES) throw new TooManyMoves();',
    '',
    [`${C}plan/bounds.test.ts`],
  ],
  [
    'a letter that is missing in a cut-out is a note',
    `${C}proof/checks/missing-letters.ts`,
    "? 'warning' : 'note'",
    "? 'note' : 'note'",
    [`${C}proof/checks/checks.test.ts`, `${C}plan/clean-cuts.test.ts`],
  ],
  [
    'a layer that is buried goes unsaid',
    `${C}arrange/effects.ts`,
    'if (Math.abs(rest.z[k] - all.z[k]) > SAME',
    'if (Math.abs(rest.z[k] - all.z[k]) >= 0',
    [`${C}plan/fixes.test.ts`],
  ],
  [
    'older plans of a job run on',
    `${S}plans.ts`,
    'for (const r of rows) if (this.queue.has(r.id)) await this.cancel(r.id);',
    '',
    server,
  ],
  [
    'nothing is ever evicted',
    `${S}files.ts`,
    '    if (total > limit) removeFile(f.path);',
    '    if (total < 0) removeFile(f.path);',
    server,
  ],
  ['what was used last goes first', `${S}files.ts`, 'b.time - a.time', 'a.time - b.time', server],
  [
    'changed content of a result goes out',
    `${S}results.ts`,
    'if (sha256(readFileSync(file)) !== want) return false;',
    '',
    [`${S}results.test.ts`],
  ],
  [
    'a stale save wins',
    `${S}jobs.ts`,
    'const stale = job.head !== base;',
    'const stale = job.head === base && false;',
    server,
  ],
  [
    'any host is answered',
    `${S}origin.ts`,
    'if (!host || !(isLoopback(host) || cameThroughGate(headers))) return false;',
    'if (!host) return false;',
    server,
  ],
  [
    'an archive of another version is taken',
    `${S}unpack.ts`,
    'if (version !== BUNDLE_VERSION)',
    'if (version === 0)',
    [`${S}unpack.test.ts`],
  ],
  [
    'a backup that was changed is taken',
    `${S}restore.ts`,
    "|| hash.digest('hex') !== told.sha256",
    '',
    [`${S}backup.test.ts`],
  ],
  ['files are not synced', `${S}files.ts`, '    if (sync) {', '    if (!sync) {', [`${S}power-loss.test.ts`]],
  ['names are not synced', `${S}files.ts`, '  syncFolder(path.dirname(to));\n', '', [`${S}power-loss.test.ts`]],
  ['named versions lose their results', `${S}keeping.ts`, ' || p.version !== null', '', [`${S}keeping.test.ts`]],
  [
    'a stored stage is not checked',
    `${S}stage-cache.ts`,
    '.equals(bytes.subarray(0, SUM))',
    '.equals(bytes.subarray(0, SUM)) && bytes.length < SUM',
    [`${S}keeping.test.ts`],
  ],
  [
    'a failed rollback hides what it was for',
    `${S}database.ts`,
    'rollback(connection).catch(() => {})',
    'rollback(connection)',
    [`${S}keeping.test.ts`],
  ],
  [
    'two saves that met go on as if they had not',
    `${E}sync.ts`,
    'if (this.of.state().conflict && !chosen)',
    'if (this.of.state().conflict && !chosen && this.busy)',
    editor,
  ],
  [
    'a server that did not answer is not asked again',
    `${E}sync.ts`,
    'if (this.of.open()) this.again(this.wait);',
    '',
    editor,
  ],
  [
    'what is not saved is forgotten',
    `${E}sync.ts`,
    'if (document) this.of.remember(',
    'if (!document) this.of.remember(',
    editor,
  ],
  [
    'a save is taken to be in force at once',
    `${E}sync.ts`,
    "this.of.say({ revision: null, saving: 'waiting' });",
    "this.of.say({ saving: 'waiting' });",
    editor,
  ],
  [
    'what arrives late takes the selection',
    `${E}editor.ts`,
    'if (this.selections === before) this.select(layers);',
    'this.select(layers);',
    editor,
  ],
  ['selections are steps of Back', `${E}place.ts`, 'from.finding !== to.finding;', 'from !== to;', editor],
  ['a text outlives its value', `${E}drafts.ts`, 'had && had.of === value', 'had', editor],
  [
    'an answer that does not fit is shown',
    'src/contract/ask.ts',
    'if (!parsed.success) throw new AskError(UNREADABLE, status);',
    '',
    ['src/contract/contract.test.ts'],
  ],
  [
    'a request says of itself that it is paired',
    `${S}gate/listen.ts`,
    '    delete req.headers[GATE_HEADER];\n',
    '',
    gate,
  ],
  ['codes can be tried for ever', `${S}gate/code.ts`, 'if (this.wrong < TRIES)', 'if (this.wrong < 99)', gate],
  [
    'a code serves twice',
    `${S}gate/code.ts`,
    '      this.renew();\n      this.changed();\n      return { is',
    '      return { is',
    gate,
  ],
  ['a removed device stays', `${S}gate/devices.ts`, '    this.devices = left;\n', '', gate],
  [
    'a cookie of https goes over http',
    `${S}gate/gate.ts`,
    'secure: this.options.secure, path',
    'secure: false, path',
    gate,
  ],
  [
    'forms of other sites are tried',
    `${S}gate/gate.ts`,
    'if (!isOwnForm(req))',
    'if (isOwnForm(req) && req.url === null)',
    gate,
  ],
  [
    'the stepover for a ridge',
    `${C}cutter/cutter.ts`,
    '2 * Math.min(p.R, radiusAt(p, ridge))',
    'Math.min(p.R, radiusAt(p, ridge))',
    [`${C}cutter/cutter.test.ts`],
  ],
  [
    'a layer turns the wrong way',
    `${C}arrange/drag.ts`,
    '/ Math.PI - 90;',
    '/ Math.PI + 90;',
    [`${C}arrange/drag.test.ts`],
  ],
  [
    'bent words wander off',
    `${C}arrange/kinds/words/curve.ts`,
    'l.centre.x + from[0] - to[0]',
    'l.centre.x - from[0] + to[0]',
    [`${C}arrange/card-figures.test.ts`],
  ],
  [
    'a model in inches of a centimetre',
    `${C}arrange/kinds/mesh/orient.ts`,
    "unit === 'in' ? MM_PER_INCH : 1 / MM_PER_INCH",
    "unit === 'in' ? 10 : 1 / MM_PER_INCH",
    [`${C}arrange/card-figures.test.ts`],
  ],
];

const root = path.resolve(import.meta.dirname, '..');
const copy = mkdtempSync(path.join(tmpdir(), 'zg-faults-'));
for (const part of ['src', 'demo', 'docs', 'dist', 'package.json', 'tsconfig.json', 'vitest.config.ts'])
  cpSync(path.join(root, part), path.join(copy, part), { recursive: true });
symlinkSync(path.join(root, 'node_modules'), path.join(copy, 'node_modules'));

/** Runs test files in the copy. @returns the names of tests that failed, null when all passed */
function fallen(tests) {
  const missing = tests.find((t) => !existsSync(path.join(copy, t)));
  if (missing) throw new Error(`there is no test file ${missing}`);
  const args = ['node_modules/vitest/vitest.mjs', 'run', '--bail', '1', '--reporter', 'json', ...tests];
  const r = spawnSync(process.execPath, args, { cwd: copy, encoding: 'utf8', maxBuffer: 1 << 28 });
  if (r.status === 0) return null;
  try {
    const report = JSON.parse(r.stdout.slice(r.stdout.indexOf('{')));
    const names = report.testResults.flatMap((f) => [
      ...f.assertionResults.filter((a) => a.status === 'failed').map((a) => a.title),
      ...(f.status === 'failed' && f.assertionResults.length === 0 ? [path.basename(f.name)] : []),
    ]);
    return names[0] ?? 'a test file';
  } catch {
    return 'a test file';
  }
}

const only = process.argv[2];
let [killed, alive] = [0, 0];
try {
  for (const [name, file, from, to, tests] of FAULTS) {
    if (only && !name.includes(only)) continue;
    const place = path.join(copy, file);
    const text = readFileSync(place, 'utf8');
    if (text.split(from).length !== 2) {
      console.log(`?? ${name}: ${text.split(from).length - 1} places in ${file}`);
      alive++;
      continue;
    }
    writeFileSync(
      place,
      text.replace(from, () => to),
    );
    const by = fallen(tests);
    writeFileSync(place, text);
    if (by) killed++;
    else alive++;
    console.log(
      `${by ? 'killed' : 'LIVES '} | ${name} | ${file} | ${by ?? tests.map((t) => path.basename(t)).join(', ')}`,
    );
  }
} finally {
  rmSync(copy, { recursive: true, force: true });
}
console.log(`${killed} of ${killed + alive} planted faults were noticed`);
