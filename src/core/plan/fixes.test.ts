import { afterAll, describe, expect, test } from 'vitest';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { withEdits } from '../doc/edits';
import type { Found } from '../findings/finding';
import { FIX_LABELS } from '../findings/texts/fixes';
import { KNOWN_RULES } from '../findings/texts/text-of';
import { joined } from '../proof/checks/joined';
import { heldHardly, loose } from '../proof/checks/loose';
import { setupView } from '../setup/view';
import { drawerFindings } from './drawer';
import { em6, plain, withPass } from './fix-jobs-test-kit';
import { expectMended, SCENES } from './fixes-test-kit';
import { drawerBit } from './plan-test-kit';
import { problems } from './problems';

const tried = new Set<string>();
const fired = new Set<string>();
const named = SCENES.map(([rule, make, long], i) => ({ name: `${rule} (${i + 1})`, rule, make, long }));

describe('every fix mends what it is offered for', () => {
  test.each(named.filter((s) => !s.long))('$name', async ({ rule, make }) => {
    for (const fix of await expectMended(rule, make)) tried.add(fix);
    fired.add(rule);
  });

  test('a piece that is still joined is cut deeper', () => {
    const view = withPass('cutout', em6());
    const cutouts = [{ pass: 'cutout', joined: { x: 1, y: 2 }, tabs: [] }];
    const [f] = joined.cut!({ view, cutouts } as never);
    expect(f).toMatchObject({ rule: 'joined', severity: 'error', place: { x: 1, y: 2 } });
    const pass = withEdits(view.document, f.fixes![0].edits).boards[0].setups[0].passes.find(
      (p) => p.kind === 'cutout',
    );
    expect(pass).toMatchObject({ into: 1 });
    expect(joined.cut!({ view, cutouts: [{ ...cutouts[0], joined: null }] } as never)).toEqual([]);
    tried.add('cut-deeper');
    fired.add('joined');
  });

  test('what comes loose is held by tape, once a person says so', () => {
    const view = plain();
    const held = [
      { file: 'a.nc', loose: [{ x: 9, y: 9, area: 100 }], weak: [{ x: 30, y: 9, area: 50, neck: 0.3, section: 2 }] },
    ];
    const at = { view, program: { file: 'a.nc' }, held, cutouts: [], earlier: [] } as never;
    const taped = (f: Found) => setupView(withEdits(view.document, f.fixes![0].edits));
    for (const rule of [loose, heldHardly]) {
      const [f] = rule.program!(at);
      expect(f).toMatchObject({ rule: rule.id, subject: { file: 'a.nc' }, place: { y: 9 } });
      expect(rule.program!({ ...(at as object), view: taped(f) } as never)).toEqual([]);
      expect(problems(taped(f).document)).toEqual([]);
      // It is told once, of the program that frees it, and not where a cut-out without tabs says so already.
      expect(rule.program!({ ...(at as object), held: [...held, ...held] } as never)).toEqual([]);
      fired.add(rule.id);
    }
    const cutouts = [{ pass: 'c', rings: [[0, 0, 20, 0, 20, 20, 0, 20]], tabs: [], reach: 0, radius: 3 }];
    expect(loose.program!({ ...(at as object), cutouts } as never)).toEqual([]);
    tried.add('hold-by-tape');
  });

  test('figures that the shop has changed are taken, and only when asked for', () => {
    const view = plain();
    const shop = {
      machines: [HOBBY_MACHINE],
      cutters: [em6(), drawerBit('ball6')],
      materials: [materialNamed('maple')],
    };
    expect(drawerFindings(view.document, shop)).toEqual([]);
    const newer = structuredClone(shop);
    newer.cutters[0].feed = 2222;
    newer.cutters[0].number = 44;
    newer.machines[0].zTravel = 99;
    newer.materials[0].stepdown = 0.33;
    const found = drawerFindings(view.document, newer);
    expect(found.map((f) => f.figures.what).sort()).toEqual(['bit', 'machine', 'material']);
    for (const f of found) {
      const taken = withEdits(view.document, f.fixes[0].edits);
      expect(drawerFindings(taken, newer).map((g) => g.id)).not.toContain(f.id);
      // The number is the job's own.
      expect(taken.cutters.map((c) => c.number)).toEqual(view.cutters.map((c) => c.number));
    }
    tried.add('take-figures');
    fired.add('figures-changed');
  });

  afterAll(() => {
    // Nothing that can be offered goes untried.
    expect(Object.keys(FIX_LABELS).filter((id) => !tried.has(id))).toEqual([]);
    expect([...fired].filter((rule) => !KNOWN_RULES.includes(rule))).toEqual([]);
  });
});
