import { expect, test } from 'vitest';
import { z } from '../units/zod';
import { loosen } from './loosen';

const strict = z
  .object({
    name: z.string().trim().min(2).max(5),
    hash: z.string().regex(/^[0-9a-f]+$/),
    size: z.number().finite().positive().max(10),
    count: z.number().int().min(1).max(4),
    list: z.array(z.number().min(0)).min(1).max(3),
    either: z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('a'), v: z.number().min(5) }),
      z.object({ kind: z.literal('b') }).refine(() => false, 'never'),
    ]),
    maybe: z.number().min(0).nullable(),
    pair: z.tuple([z.number().min(0), z.boolean()]),
    table: z.record(z.string(), z.number().min(0)),
    other: z.number().min(3).default(3),
  })
  .superRefine((_, ctx) => ctx.addIssue({ code: 'custom', message: 'always' }));
const loose = loosen(strict);
const plain = {
  name: 'x',
  hash: 'ab',
  size: -1,
  count: 2,
  list: [] as number[],
  either: { kind: 'a', v: 0 } as { kind: string; v?: number },
  maybe: -3,
  pair: [-1, true] as unknown[],
  table: { k: -1 },
};

test('figures out of their bounds, lists too short and fields that do not go together are read', () => {
  expect(strict.safeParse(plain).success).toBe(false);
  expect(loose.parse(plain)).toEqual({ ...plain, other: 3 });
  expect(loose.parse({ ...plain, either: { kind: 'b' } })).toMatchObject({ either: { kind: 'b' } });
  expect(loose.parse({ ...plain, name: '  y ' })).toMatchObject({ name: 'y' });
});

test.each<[string, object]>([
  ['another type', { size: '5' }],
  ['no number at all', { size: Number.NaN }],
  ['an unknown kind', { either: { kind: 'c' } }],
  ['a text that is too long', { name: 'longer' }],
  ['a text of another format', { hash: '../x' }],
  ['a list that is too long', { list: [1, 2, 3, 4] }],
  ['a count beyond its limit', { count: 1_000_000_000 }],
  ['a field that is missing', { pair: undefined }],
])('%s is refused', (_, change) => {
  expect(loose.safeParse({ ...plain, ...change }).success).toBe(false);
});
