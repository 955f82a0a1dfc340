import { z } from '../units/zod';

type Def = z.core.$ZodTypeDef & Record<string, unknown>;
const loose = (s: unknown) => loosen(s as z.ZodType);

/** Lengths of texts and lists bound memory, and formats of texts are what makes them readable; the least ones only say what makes sense. */
function lasting(checks: unknown): z.core.$ZodCheck<never>[] {
  return ((checks ?? []) as z.core.$ZodCheck<never>[]).filter((c) => c._zod.def.check !== 'min_length');
}

/**
 * A schema that takes whatever can be read as the given one: types, kinds, formats and the greatest lengths of texts and lists stay,
 * bounds of numbers, least lengths and what fields say of each other go. Whole numbers are counts and keep their bounds: a list of a
 * billion copies cannot be worked with.
 */
export function loosen(schema: z.ZodType): z.ZodType {
  const def = schema._zod.def as unknown as Def;
  switch (def.type) {
    case 'object': {
      const shape = def.shape as Record<string, z.ZodType>;
      return z.object(Object.fromEntries(Object.entries(shape).map(([k, s]) => [k, loosen(s)])));
    }
    case 'array':
      return z.array(loose(def.element)).check(...(lasting(def.checks) as never[]));
    case 'tuple':
      return z.tuple((def.items as z.ZodType[]).map(loosen) as [z.ZodType, ...z.ZodType[]]);
    case 'record':
      return z.record(def.keyType as z.core.$ZodRecordKey, loose(def.valueType));
    case 'union': {
      const options = (def.options as z.ZodType[]).map(loosen);
      return def.discriminator === undefined
        ? z.union(options as [z.ZodType, ...z.ZodType[]])
        : z.discriminatedUnion(def.discriminator as string, options as never);
    }
    case 'nullable':
      return loose(def.innerType).nullable();
    case 'optional':
      return loose(def.innerType).optional();
    case 'default':
      return loose(def.innerType).default(def.defaultValue as never);
    case 'number':
      return (def.checks as unknown[] | undefined)?.some((c) => isWhole(c as z.core.$ZodCheck<never>))
        ? schema
        : z.number();
    case 'string':
      return z.string().check(...(lasting(def.checks) as never[]));
    default:
      return schema;
  }
}

function isWhole(check: z.core.$ZodCheck<never>): boolean {
  return check._zod.def.check === 'number_format';
}
