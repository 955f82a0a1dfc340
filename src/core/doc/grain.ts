import type { Board } from './board';

/** Whether rows at an angle in degrees run exactly with the grain; null where the board has none. */
export function withGrain(angle: number, grain: Board['grain']): boolean | null {
  if (grain === 'none') return null;
  const turned = ((angle % 180) + 180) % 180;
  return turned === (grain === 'along-x' ? 0 : 90);
}
