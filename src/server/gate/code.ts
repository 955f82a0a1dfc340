import { createHash, randomInt, timingSafeEqual } from 'node:crypto';

/** Letters and digits that are not taken for each other. */
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const LENGTH = 8;
/** Wrong tries with one code, and how long pairing is closed after them, ms. */
const TRIES = 5;
const PAUSE = 60_000;

const fresh = () => Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
const sum = (text: string) => createHash('sha256').update(text).digest();

export type Tried = { is: 'right' } | { is: 'wrong'; left: number } | { is: 'closed'; seconds: number };

/**
 * The code that another device is paired with: it serves once, and for five wrong tries. After those there is a new one, and a minute in
 * which nothing is tried; so that 31^8 codes are tried at five a minute.
 */
export class PairingCode {
  private code = fresh();
  private wrong = 0;
  private closedUntil = 0;

  /** @param changed is told of every new code */
  constructor(
    private readonly changed: () => void = () => {},
    private readonly now: () => number = Date.now,
  ) {}

  /** The code as it is read out: two groups of four. */
  get shown(): string {
    return `${this.code.slice(0, 4)}-${this.code.slice(4)}`;
  }

  /** Seconds until a code is taken again; 0 when it is. */
  get closed(): number {
    return Math.max(0, Math.ceil((this.closedUntil - this.now()) / 1000));
  }

  private renew(): void {
    this.code = fresh();
    this.wrong = 0;
  }

  /** Tries a text as a person has typed it: small letters, spaces and dashes do not count. */
  try(text: string): Tried {
    if (this.closed > 0) return { is: 'closed', seconds: this.closed };
    const typed = text.toUpperCase().replace(/[^A-Z0-9]/g, '');
    if (timingSafeEqual(sum(typed), sum(this.code))) {
      this.renew();
      this.changed();
      return { is: 'right' };
    }
    this.wrong++;
    if (this.wrong < TRIES) return { is: 'wrong', left: TRIES - this.wrong };
    this.renew();
    this.closedUntil = this.now() + PAUSE;
    this.changed();
    return { is: 'closed', seconds: this.closed };
  }
}
