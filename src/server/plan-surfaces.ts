import type { PARTS } from '../contract/wire';
import { NotFound } from './errors';
import { type Box, packedPart, packedSection } from './packed-part';
import { packedWays } from './packed-ways';
import type { ResultStore } from './results';

/** The surfaces that are sent for what is asked of a part of a board. */
const PART_ARRAYS = {
  cut: ['cut', 'mask'],
  left: ['cut', 'deviation', 'mask'],
  web: ['top', 'under'],
} as const satisfies Record<(typeof PARTS)[number], string[]>;

/** The surfaces that a section shows. */
const SECTIONED = ['target', 'rough', 'cut', 'top', 'under'];

/** What the setups of finished plans look like: their surfaces, whole or in part, and the ways of their bits. */
export class PlanSurfaces {
  /** @param inputOf the hash that a plan's result lies under, by the plan's id; throws NotFound */
  constructor(
    private readonly results: ResultStore,
    private readonly inputOf: (plan: string) => Promise<string>,
  ) {}

  /** The result that a file of a setup of a plan belongs to, and the file's name. */
  private async of(id: string, setup: string, what: 'view' | 'full' | 'ways') {
    const input = await this.inputOf(id);
    const at = this.results.summary(input)?.setups.findIndex((s) => s.id === setup) ?? -1;
    if (at < 0) throw new NotFound('this plan has no such setup; plan it again');
    return { input, name: `${what}-${at}.bin` };
  }

  /** Surfaces of a setup of a plan, by its id: packed as the page unpacks them. */
  async view(id: string, setup: string): Promise<Buffer> {
    const { input, name } = await this.of(id, setup, 'view');
    return whole(this.results.read(input, name));
  }

  /** SHA-256 of those. */
  async viewSum(id: string, setup: string): Promise<string> {
    const { input, name } = await this.of(id, setup, 'view');
    return whole(this.results.sum(input, name));
  }

  /** Where a file lies that is read in parts. */
  private async large(id: string, setup: string, what: 'full' | 'ways'): Promise<string> {
    const { input, name } = await this.of(id, setup, what);
    return whole(this.results.file(input, name));
  }

  /** A part of the surfaces of a setup, as finely as they were planned or with as many cells as are asked for. */
  async part(
    id: string,
    { setup, most, of, ...box }: { setup: string; most: number; of: keyof typeof PART_ARRAYS } & Box,
  ): Promise<Uint8Array[]> {
    return packedPart(await this.large(id, setup, 'full'), PART_ARRAYS[of], box, most);
  }

  /** The ways of the bits of a setup within a part of its board, of one pass or of all, thinned to what a picture shows. */
  async ways(
    id: string,
    { setup, pass, fine, ...box }: { setup: string; pass?: string; fine: number } & Box,
  ): Promise<Uint8Array[]> {
    return packedWays(await this.large(id, setup, 'ways'), pass, box, fine);
  }

  /** Heights along a line at full resolution. */
  async section(id: string, setup: string, line: Box, n: number): Promise<Record<string, number[]>> {
    return packedSection(await this.large(id, setup, 'full'), SECTIONED, line, n);
  }
}

/** What there is of a result. @throws NotFound where it is damaged or missing */
export function whole<T>(found: T | null): T {
  if (found === null) throw new NotFound('this result is damaged or missing; plan it again');
  return found;
}
