/** A step into a document: a field's name, a place in a list, or the entry of a list with that id. */
export type Step = string | number | { id: string };

/** One change of a document, as plain data. */
export type Edit =
  /** Sets what lies at a path. */
  | { set: Step[]; to: unknown }
  /** Puts an entry into the list at a path, before the place of that number. */
  | { insert: Step[]; at: number; value: unknown }
  /** Takes the entry at a path out of its list. */
  | { remove: Step[] };
