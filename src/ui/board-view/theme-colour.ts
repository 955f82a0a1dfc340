import type { Rgb } from '@/core/arrange/picture';

/** Reads a "#rrggbb" custom property of the page. */
export function themeColour(name: string): Rgb {
  const text = getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  const m = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(text);
  return m ? [Number.parseInt(m[1], 16), Number.parseInt(m[2], 16), Number.parseInt(m[3], 16)] : [255, 254, 250];
}
