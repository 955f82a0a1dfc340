import { expect, test } from 'vitest';
import { jobSchema } from '../doc/job';
import { DOCUMENT_TEXTS } from '../findings/texts/document';
import { textOf } from '../findings/texts/text-of';
import { drawerFindings } from './drawer';
import { allWrong, dishes } from './plan-test-kit';
import { problems } from './problems';

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
