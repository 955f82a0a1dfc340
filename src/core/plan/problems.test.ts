import { expect, test } from 'vitest';
import type { Cutter } from '../cutter/cutter';
import { jobSchema } from '../doc/job';
import type { PassKindName, PassOf } from '../doc/pass';
import { DOCUMENT_TEXTS } from '../findings/texts/document';
import { textOf } from '../findings/texts/text-of';
import { drawerFindings } from './drawer';
import { dishes, drawerBit, proposed } from './plan-test-kit';
import { problems } from './problems';

/** A document in which everything is wrong that can be at the same time. */
function allWrong() {
  const { face } = dishes();
  const add = <K extends PassKindName>(kind: K, bit: Cutter, change: (p: PassOf<K>) => void) => {
    const pass = proposed(kind, face, bit);
    pass.id = `p${face.passes.length}`;
    if (!face.cutters.some((c) => c.id === bit.id)) face.cutters.push(bit);
    change(pass);
    face.passes.push(pass);
  };
  const em = drawerBit('em6');
  const drill = drawerBit('drill6');
  face.board.face = 'painted';
  face.output.oneFile = true;
  face.layers.push(structuredClone(face.layers[0]));
  face.layers[0].mask = { kind: 'layer', layer: 'gone', grow: 0, outside: false };
  add('cutout', em, (p) => (p.cutter = 'ball3'));
  add('cutout', em, (p) => (p.tabs.at = [{ x: 1, y: 1 }]));
  add('cutout', em, (p) => (p.floor = 9));
  add('cutout', em, (p) => (p.stepdown = 0.001));
  add('hole', em, (p) => (p.diameter = 5));
  add('hole', em, (p) => (p.diameter = 6.35));
  add('hole', drill, (p) => (p.diameter = 8));
  add('rough', em, (p) => (p.rampAngle = 60));
  add('rough', em, (p) => (p.stepover = 5));
  add('rough', em, (p) => (p.stepover = 0.001));
  add('rough', em, (p) => (p.cutter = 'lent'));
  add('rough', { ...em, id: 'huge', number: 40, diameter: 120, shankDiameter: 12 }, () => {});
  add('skim', em, () => {});
  face.board.setups[1].up = 'back';
  face.board.setups[1].passes.push({ ...proposed('skim', face, em), id: 'uneven' });
  const uneven = face.board.setups[1].passes.at(-1) as PassOf<'skim'>;
  uneven.points[0].thickness = 90;
  return face.document;
}

test('a document with everything wrong is read, and all of it is listed, each with its place and its sentence', () => {
  const wrong = allWrong();
  const read = jobSchema.parse(JSON.parse(JSON.stringify(wrong)));
  const found = problems(read);
  const alone = ['no-setup', 'no-pass', 'figures-changed'];
  expect([...new Set(found.map((f) => f.rule))].sort()).toEqual(
    Object.keys(DOCUMENT_TEXTS)
      .filter((r) => !alone.includes(r))
      .sort(),
  );
  for (const f of found) {
    expect(f.subject.path, f.id).toBeDefined();
    let at: unknown = read;
    for (const step of f.subject.path!) at = (at as Record<string | number, unknown>)[step];
    expect(at, `${f.id} at ${f.subject.path}`).toBeDefined();
    const { message, remedy } = textOf(f);
    expect(message.length).toBeGreaterThan(10);
    expect(remedy.length).toBeGreaterThan(5);
    expect(`${message} ${remedy}`).not.toMatch(/undefined|NaN|\[object/);
  }
  expect(new Set(found.map((f) => f.id)).size).toBe(found.length);
});

test('what cannot stand beside the others: no pass, no setup, and figures that the shop has changed', () => {
  const { face, back } = dishes();
  expect(problems(face.document)).toEqual([]);
  expect(
    drawerFindings(face.document, { cutters: [{ ...face.cutters[0], feed: 1 }], machines: [], materials: [] }),
  ).toMatchObject([{ rule: 'figures-changed', stops: false }]);
  face.passes = [];
  back.passes = [];
  expect(problems(face.document).map((f) => f.rule)).toEqual(['no-pass']);
  face.board.setups = [];
  expect(problems(face.document).map((f) => f.rule)).toEqual(['no-setup']);
});
