import { useRef } from 'react';

/** A value for what stands beside the board: as it is, and while a hand moves something as it was before, so that each move costs the board alone. */
export function useCalm<T>(value: T, moving: boolean): T {
  const held = useRef(value);
  if (!moving) held.current = value;
  return held.current;
}
