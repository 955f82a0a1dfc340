import { AIR, boardGrid, type Grid, type HeightField } from '../field/height-field';
import type { Board, Relief } from '../plan/job';
import { type HeightImage, imageField } from '../sources/height-image';
import { type Box, boxOf, orientMesh } from '../sources/orient';
import { rasterise } from '../sources/rasterise';
import type { Mesh } from '../sources/stl';

export interface PlacedRelief {
  field: HeightField;
  /** Share of the relief's thickness and of its plan that falls below the base plane and is lost. */
  lost: { thickness: number; plan: number };
  thinCells: number;
  /** 1 on the cells where the relief falls below the base plane. */
  below: Uint8Array;
  /** Bits a sample of an image, 0 for a mesh. */
  depth: number;
}

/** Box of the mesh as turned, file units. */
export function turnedBox(mesh: Mesh, r: Pick<Relief, 'turns' | 'mirror'>): Box {
  return boxOf(orientMesh(mesh, r));
}

/**
 * The relief on the board's grid, 0..rise mm over its base plane: meshes by exact rasterisation, images by resampling.
 * `invert` turns heights over, so that what stood highest lies deepest.
 */
export function placeRelief(
  source: { mesh?: Mesh; image?: HeightImage },
  r: Relief,
  board: Pick<Board, 'x' | 'y'>,
  cell: number,
): PlacedRelief {
  const grid = boardGrid(board.x, board.y, cell);
  if (source.image) {
    const box = {
      x0: r.centre.x - r.size.x / 2,
      y0: r.centre.y - r.size.y / 2,
      x1: r.centre.x + r.size.x / 2,
      y1: r.centre.y + r.size.y / 2,
    };
    return {
      field: imageField(source.image, box, r.rise, r.invert, grid),
      lost: { thickness: 0, plan: 0 },
      thinCells: 0,
      below: new Uint8Array(0),
      depth: source.image.depth,
    };
  }
  return placeMesh(source.mesh!, r, grid);
}

function placeMesh(mesh: Mesh, r: Relief, grid: Grid): PlacedRelief {
  const turned = orientMesh(mesh, r);
  const { min, max } = boxOf(turned);
  const span = [0, 1, 2].map((a) => Math.max(max[a] - min[a], 1e-9));
  const base = min[2] + r.base * span[2];
  const sx = r.size.x / span[0];
  const sy = r.size.y / span[1];
  const sz = r.rise / Math.max(max[2] - base, 1e-9);
  const { field, thinCells } = rasterise(
    turned,
    {
      sx,
      sy,
      sz,
      tx: r.centre.x - (sx * (min[0] + max[0])) / 2,
      ty: r.centre.y - (sy * (min[1] + max[1])) / 2,
      tz: -base * sz,
    },
    grid,
  );
  let covered = 0;
  const below = new Uint8Array(field.data.length);
  let lost = 0;
  const d = field.data;
  const slack = r.rise * 1e-6;
  for (let k = 0; k < d.length; k++) {
    if (d[k] === AIR) continue;
    covered++;
    if (d[k] < -slack) {
      lost++;
      below[k] = 1;
      d[k] = AIR;
      continue;
    }
    const v = Math.min(Math.max(d[k], 0), r.rise);
    d[k] = r.invert ? r.rise - v : v;
  }
  return { field, lost: { thickness: r.base, plan: covered > 0 ? lost / covered : 0 }, thinCells, below, depth: 0 };
}
