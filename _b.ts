import { removeStock } from '@/core/kernels/stock-removal';
import { makeField } from '@/core/field/height-field';
for (const [name, shape, R, len, slope] of [['ball', 1, 1.5875, 1.4, 0.3], ['ball.1', 1, 1.5875, 0.1, 0.3],['flat level', 0, 3.175, 1, 0], ['flat ramp', 0, 3.175, 1, 0.07]] as any) {
  const f = makeField({ width: 3000, height: 300, cell: 0.1, originX: 0, originY: 0 });
  const segs: number[] = []; let x = 2, y = 2, z = -1; let n = 0; let d = 1; let s=1;
  while (n < 60000) { const nx = x + d * len; const nz = z + slope * len * s; segs.push(x, y, z, nx, y, nz, 0); x = nx; z = nz; n++; if (z < -4 || z > -0.5 || Math.random()<0.3) s = -s; if (x > 296 || x < 3) { d = -d; y += 0.25; if (y > 28) y = 2; } }
  const a = Float64Array.from(segs);
  removeStock(f, { shape, R, p0: 0, p1: 0, p2: 0 }, a.slice(0, 7000));
  const t = process.cpuUsage(); removeStock(f, { shape, R, p0: 0, p1: 0, p2: 0 }, a); const e = process.cpuUsage(t);
  console.log(name, Math.round(n / ((e.user + e.system) / 1e6)), 'segs/s');
}
