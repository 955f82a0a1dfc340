/** How programs are written for a kind of controller, by its traits. */
export interface Dialect {
  /** What it is called where it is chosen, by what tells it from the others. */
  name: string;
  /** Its traits in words. */
  traits: string;
  /** Whether arcs are written as arcs. */
  arcs: boolean;
  /** Step of line numbers; 0 writes none. */
  numbers: number;
  comment(text: string): string;
  /** Most decimals of a place, by unit. */
  decimals: { mm: number; in: number };
  /** Whether a bit that the machine changes needs its length said (G43 Hn, n the bit's number). */
  lengthOffset: boolean;
  /** Seconds for the spindle to reach its speed, waited after each start. */
  wait: number;
  /** How a program ends. */
  end: string;
}

/** Seconds that a spindle gets to reach its speed (common practice, no source). */
export const SPINDLE_WAIT = 3;
