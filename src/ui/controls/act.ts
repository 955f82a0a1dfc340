/** Something that can be done with what is selected: by its key, from a menu, or by its name. */
export interface Act {
  name: string;
  /** As the list of keys writes it; empty for none. */
  keys: string;
  /** Whether it can be done now. */
  can: boolean;
  run(): void;
}
