import { useRef } from 'react';

/** How often what is shown beside the board follows a hand that moves something, ms. */
const FOLLOWS = 250;

/** A value for what stands beside the board: as it is, and while a hand moves something as it was a moment ago, so that each move costs the board alone. */
export function useCalm<T>(value: T, moving: boolean): T {
  const held = useRef({ value, since: 0 });
  const now = performance.now();
  if (!moving || now - held.current.since > FOLLOWS) held.current = { value, since: now };
  return held.current.value;
}
