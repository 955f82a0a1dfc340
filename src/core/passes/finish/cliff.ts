/** Places that are looked up between two samples over a cliff, and one more. */
const BETWEEN = 4;

/** A way between two samples: from which drop on it is a cliff, mm, where a share of it lies, and how high the tip's surface is at a place. */
interface Between {
  cliff: number;
  place(share: number): [number, number];
  surface(x: number, y: number): number;
}

/**
 * The way over a cliff between two samples: looked up in between, and where it still drops steeply the higher of two heights is held to
 * the lower one's place, for a straight line would lead the bit's side into the edge.
 * @param out receives x y z points
 */
export function overCliff([from, to]: [number, number], { cliff, place, surface }: Between, out: number[]): void {
  let had = from;
  for (let q = 1; q <= BETWEEN; q++) {
    const [x, y] = place(q / BETWEEN);
    const [bx, by] = place((q - 1) / BETWEEN);
    const height = q === BETWEEN ? to : Math.max(surface(x, y), Math.min(from, to));
    if (Math.abs(height - had) > cliff / BETWEEN) {
      if (height > had) out.push(bx, by, height);
      else out.push(x, y, had);
    }
    if (q < BETWEEN) out.push(x, y, height);
    had = height;
  }
}
