import { expect, test } from 'vitest';
import type { CutoutFacts } from '../passes/cutout';
import { cutoutFindings } from './cutout-findings';
import { DRAWER, HOBBY_MACHINE } from './defaults';
import type { Job } from './job';
import type { CutoutPass } from './pass';
import { plainJob, proposeCutout } from './propose';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const facts: CutoutFacts = {
  start: -6,
  floor: -19.5,
  levels: 6,
  bottom: -19.5,
  tabTop: -13,
  rings: [[0, 0, 10, 0, 10, 10]],
  tabs: [{ x: 5, y: 0 }],
  reach: 10,
  radius: 3.175,
  corners: [],
};
function found(change: { job?: (j: Job) => void; pass?: (p: CutoutPass) => void; facts?: Partial<CutoutFacts> }) {
  const board = { x: 120, y: 90, thickness: 19, material: 'maple' };
  const job = plainJob({
    name: 'a',
    order: '',
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball3'),
    board,
  });
  change.job?.(job);
  const pass = proposeCutout(job, bit('em6'));
  change.pass?.(pass);
  return cutoutFindings(job, pass, bit('em6'), { ...facts, ...change.facts });
}

test('a cut-out as proposed has nothing said of it', () => {
  expect(found({})).toEqual([]);
});

test('one without a line says so, and nothing else', () => {
  const [f, ...rest] = found({ facts: { rings: [] }, job: (j) => (j.board.spoilboard = false) });
  expect(rest).toEqual([]);
  expect(f).toMatchObject({ rule: 'nothing-to-cut', severity: 'error' });
  expect(f.message).toContain('too narrow for the bit');
});

test('without a spoilboard it cuts the bed, how deep is said', () => {
  const bare = (j: Job) => (j.board.spoilboard = false);
  expect(found({ job: bare, pass: (p) => (p.into = 0.5) })[0].message).toContain('0.5 mm into the bed');
  expect(found({ job: bare, pass: (p) => (p.into = 0) })[0].message).toContain('to the bed');
});

test('an upright tab behind which the bit would be driven straight down is warned of at its place', () => {
  const [f] = found({ pass: (p) => (p.tabs.sloped = false) });
  expect(f).toMatchObject({ rule: 'loose', severity: 'warning', x: 5, y: 0 });
  expect(f.remedy).toBe('let the tabs be sloped');
  expect(found({ pass: (p) => (p.tabs.sloped = false), facts: { tabs: [] } })).toEqual([]);
});

test('a corner names the largest bit that goes in, and whether one of the job’s reaches down there', () => {
  const corner = (most: number) => ({ corners: [{ x: 1, y: 2, area: 1.5, most }] });
  expect(found({ facts: corner(0) })[0].remedy).toContain('finish it with a knife');
  expect(found({ facts: corner(3.2) })[0]).toMatchObject({ rule: 'corner', severity: 'note', x: 1, y: 2 });
  expect(found({ facts: corner(3.2) })[0].remedy).toContain('this job has none');
  const small = (change: object) => (j: Job) => j.cutters.push({ ...bit('em3'), ...change });
  expect(found({ facts: corner(3.2), job: small({}) })[0].remedy).toContain('end mill 3.175 reaches down');
  expect(found({ facts: corner(3.2), job: small({ fluteLength: 8 }) })[0].remedy).toContain('flutes of 8 mm');
  expect(found({ facts: corner(3.2), job: small({ stickOut: 15 }) })[0].remedy).toContain('its holder meets the board');
});
