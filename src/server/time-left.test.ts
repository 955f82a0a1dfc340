import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import { type Phase, phasesOf } from '../core/plan/phases';
import { dishes } from '../core/plan/plan-test-kit';
import { StageTimes } from './stage-times';
import { TimeLeft } from './time-left';

const folder = mkdtempSync(path.join(tmpdir(), 'zg-times-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const phase = (name: string, cells = 1e6): Phase => ({ name, kind: name, cells });
const PHASES = [phase('layers'), phase('roughing'), phase('finishing'), phase('proof')];
const usual: Record<string, number> = { layers: 1, roughing: 4, finishing: 10, proof: 5 };

describe('the time left', () => {
  test('is what each phase is expected to take, less what has gone; a quick one leaves nothing behind, a slow one never less than none', () => {
    const t = new TimeLeft(PHASES, (p) => usual[p.name]);
    expect(t.left(0)).toEqual({ secondsLeft: 20, longer: false });
    t.news('layers', 0);
    t.news('layers', 0.2);
    expect(t.left(0.4).secondsLeft).toBeCloseTo(19.6, 9);
    t.news('roughing', 0.5);
    expect(t.left(2.5).secondsLeft).toBe(17);
    expect(t.left(60)).toEqual({ secondsLeft: 15, longer: true });
    t.news('proof', 61);
    expect(t.left(61)).toEqual({ secondsLeft: 5, longer: false });
    t.close(63);
    expect(Object.fromEntries(t.took)).toEqual({ layers: 0.5, roughing: 60.5, proof: 2 });
  });

  test('counts phases of one name together, as of a board in plots, where they come again', () => {
    const t = new TimeLeft([phase('layers'), phase('roughing'), phase('proof')], (p) => usual[p.name]);
    t.news('layers', 0);
    t.news('roughing', 0.5);
    t.news('layers', 2);
    // Half of the layers' second was taken before; of roughing half of its four seconds are still to come.
    expect(t.left(2.25).secondsLeft).toBeCloseTo(0.25 + 2.5 + 5, 9);
  });
});

describe('what planning takes here', () => {
  test('is learnt from what it took, the middle of the last few; what came of an earlier plan says nothing', () => {
    const file = path.join(folder, 'times.json');
    const times = new StageTimes(file);
    const first = times.expected(phase('finishing'));
    expect(first).toBeGreaterThan(0);
    for (const took of [6, 5, 7]) times.learn([phase('finishing', 2e6)], new Map([['finishing', 2 * took]]));
    expect(times.expected(phase('finishing', 3e6))).toBeCloseTo(18, 9);
    times.learn([phase('finishing')], new Map([['finishing', 0.01]]));
    expect(times.expected(phase('finishing'))).toBeCloseTo(6, 9);
    // Kept for the next start; a file that is no such file is as good as none.
    expect(new StageTimes(file).expected(phase('finishing'))).toBeCloseTo(6, 9);
    writeFileSync(file, '{"finishing": "soon"}');
    expect(new StageTimes(file).expected(phase('finishing'))).toBe(first);
  });

  test('goes by the phases of a job, as they are told', () => {
    const { face } = dishes();
    const phases = phasesOf(face.document);
    expect(phases.map((p) => p.name)).toContain(`layers, ${face.setup.name}`);
    expect(phases.at(-1)).toMatchObject({ name: 'proof', kind: 'proof' });
    for (const p of phases.filter((p) => p.kind !== 'programs')) expect(p.cells).toBeGreaterThan(1e4);
  });
});
