// Cutter offset kernels. All rows are padded by the caller so that no bounds are checked here; see ../cutter-offset.ts
// for the layout and the plain definition.

const BIG: f32 = 1e30;

// Highest of each aligned run of eight cells; `count` runs of eight, written one float a run.
export function blockMax8(src: usize, count: i32, dst: usize): void {
  for (let i = 0; i < count; i++) {
    const a = v128.load(src + ((i as usize) << 5));
    const b = v128.load(src + ((i as usize) << 5) + 16);
    const m = f32x4.pmax(a, b);
    const p = f32x4.pmax(m, v128.shuffle<f32>(m, m, 2, 3, 0, 1));
    const q = f32x4.pmax(p, v128.shuffle<f32>(p, p, 1, 0, 3, 2));
    f32.store(dst + ((i as usize) << 2), f32x4.extract_lane(q, 0));
  }
}

// Row-wise maximum of two float rows; `n` is a multiple of four.
@inline
export function maxRows(a: usize, b: usize, n: i32, dst: usize): void {
  for (let i: usize = 0, e: usize = (n as usize) << 2; i < e; i += 16) {
    v128.store(dst + i, f32x4.pmax(v128.load(a + i), v128.load(b + i)));
  }
}

@inline
export function lowest(a: v128, b: v128, c: v128, d: v128): f32 {
  const m = f32x4.pmin(f32x4.pmin(a, b), f32x4.pmin(c, d));
  const p = f32x4.pmin(m, v128.shuffle<f32>(m, m, 2, 3, 0, 1));
  const q = f32x4.pmin(p, v128.shuffle<f32>(p, p, 1, 0, 3, 2));
  return f32x4.extract_lane(q, 0);
}

// Maxima of three and of six neighbouring blocks, for the columns that a chunk of eight or of thirty-two offsets touches.
@inline
export function slideBlocks(bm: usize, nb: i32, s3: usize, s6: usize): void {
  for (let j = 0; j + 6 <= nb; j++) {
    const o = bm + ((j as usize) << 2);
    const a = max(max(f32.load(o), f32.load(o + 4)), f32.load(o + 8));
    f32.store(s3 + ((j as usize) << 2), a);
    f32.store(s6 + ((j as usize) << 2), max(a, max(max(f32.load(o + 12), f32.load(o + 16)), f32.load(o + 20))));
  }
}

// Raises a row of results by one source row: out = max(out, max(m[x - dx], m[x + dx]) - t[dx]). Chunks of offsets that
// cannot raise any of sixteen columns are skipped.
@inline
function accumulate(out: usize, m: usize, s3: usize, s6: usize, t: usize, width16: i32, pad: i32, R: i32): void {
  for (let x = 0; x < width16; x += 16) {
    const o = out + ((x as usize) << 2);
    let a0 = v128.load(o), a1 = v128.load(o + 16), a2 = v128.load(o + 32), a3 = v128.load(o + 48);
    let least = lowest(a0, a1, a2, a3);
    const X = x + pad;
    const B = X >> 3;
    let touched = false;
    for (let g = 0; g <= R; g += 32) {
      const tg = f32.load(t + ((g as usize) << 2));
      if (tg >= BIG) break;
      const gb = g >> 3;
      const reach = max(f32.load(s6 + (((B - gb - 4) as usize) << 2)), f32.load(s6 + (((B + gb) as usize) << 2)));
      if (reach - tg <= least) continue;
      for (let d = g; d < g + 32; d += 8) {
        const td = f32.load(t + ((d as usize) << 2));
        if (td >= BIG) break;
        const db = d >> 3;
        const r3 = max(f32.load(s3 + (((B - db - 1) as usize) << 2)), f32.load(s3 + (((B + db) as usize) << 2)));
        if (r3 - td <= least) continue;
        const lp = m + (((X - d) as usize) << 2);
        const rp = m + (((X + d) as usize) << 2);
        for (let k: usize = 0; k < 32; k += 4) {
          const tv = v128.load32_splat(t + ((d as usize) << 2) + k);
          a0 = f32x4.pmax(a0, f32x4.sub(f32x4.pmax(v128.load(lp - k), v128.load(rp + k)), tv));
          a1 = f32x4.pmax(a1, f32x4.sub(f32x4.pmax(v128.load(lp - k, 16), v128.load(rp + k, 16)), tv));
          a2 = f32x4.pmax(a2, f32x4.sub(f32x4.pmax(v128.load(lp - k, 32), v128.load(rp + k, 32)), tv));
          a3 = f32x4.pmax(a3, f32x4.sub(f32x4.pmax(v128.load(lp - k, 48), v128.load(rp + k, 48)), tv));
        }
        least = lowest(a0, a1, a2, a3);
        touched = true;
      }
    }
    if (touched) {
      v128.store(o, a0);
      v128.store(o, a1, 16);
      v128.store(o, a2, 32);
      v128.store(o, a3, 48);
    }
  }
}

/**
 * CL(x, y) = max over d of h(x + d) - t(|d|) for one band of rows.
 * src: rows of `stride` floats (multiple of 8), `pad` (multiple of 8, >= R + 32) floats either side and R rows above and
 * below; blocks: blockMax8 of every src row (stride / 8 floats a row); table: (R + 1) rows of `tStride` floats, BIG
 * where d lies outside; scratch: stride + 3 * stride / 8 floats; dst: `rows` rows of `width16` floats.
 */
export function offsetBand(
  src: usize, blocks: usize, table: usize, scratch: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, rows: i32, R: i32, tStride: i32,
): void {
  const nb = stride >> 3;
  const m = scratch;
  const bm = scratch + ((stride as usize) << 2);
  const s3 = bm + ((nb as usize) << 2);
  const s6 = s3 + ((nb as usize) << 2);
  for (let y = 0; y < rows; y++) {
    const out = dst + (((y * width16) as usize) << 2);
    const low = f32x4.splat(-BIG);
    for (let i: usize = 0, e: usize = (width16 as usize) << 2; i < e; i += 16) v128.store(out + i, low);
    for (let dy = 0; dy <= R; dy++) {
      const t = table + (((dy * tStride) as usize) << 2);
      const t0 = f32.load(t);
      if (t0 >= BIG) break;
      const above = (y + R - dy), below = (y + R + dy);
      maxRows(src + (((above * stride) as usize) << 2), src + (((below * stride) as usize) << 2), stride, m);
      maxRows(blocks + (((above * nb) as usize) << 2), blocks + (((below * nb) as usize) << 2), nb & ~3, bm);
      for (let j = nb & ~3; j < nb; j++) {
        const o = (j as usize) << 2;
        f32.store(bm + o, max(f32.load(blocks + (((above * nb) as usize) << 2) + o), f32.load(blocks + (((below * nb) as usize) << 2) + o)));
      }
      slideBlocks(bm, nb, s3, s6);
      accumulate(out, m, s3, s6, t, width16, pad, R);
    }
  }
}

// slideBlocks for `count` rows of blocks.
export function slideRows(blocks: usize, nb: i32, count: i32, s3: usize, s6: usize): void {
  for (let i = 0; i < count; i++) {
    const o = ((i * nb) as usize) << 2;
    slideBlocks(blocks + o, nb, s3 + o, s6 + o);
  }
}

/**
 * The offset on lines that need not lie on the grid's rows: line l takes `near` source rows, whose indices stand in
 * `rows` (i32, near a line) and whose profile rows stand in `tables` (tStride floats each), nearest first.
 */
export function offsetLines(
  src: usize, s3: usize, s6: usize, rows: usize, tables: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, lines: i32, near: i32, R: i32, tStride: i32,
): void {
  const nb = stride >> 3;
  for (let l = 0; l < lines; l++) {
    const out = dst + (((l * width16) as usize) << 2);
    const low = f32x4.splat(-BIG);
    for (let i: usize = 0, e: usize = (width16 as usize) << 2; i < e; i += 16) v128.store(out + i, low);
    for (let k = 0; k < near; k++) {
      const at = l * near + k;
      const row = i32.load(rows + ((at as usize) << 2));
      const t = tables + (((at * tStride) as usize) << 2);
      if (f32.load(t) >= BIG) continue;
      const b = ((row * nb) as usize) << 2;
      accumulate(out, src + (((row * stride) as usize) << 2), s3 + b, s6 + b, t, width16, pad, R);
    }
  }
}

/**
 * Window maxima of doubling length for one row: level k holds max over [x, x + 2^k - 1], `levels` rows of `stride`
 * floats written one after the other at dst (level 0 is a copy).
 */
export function rowMaxima(src: usize, stride: i32, levels: i32, dst: usize): void {
  memory.copy(dst, src, (stride as usize) << 2);
  for (let k = 1; k < levels; k++) {
    const from = dst + ((((k - 1) * stride) as usize) << 2);
    const to = dst + (((k * stride) as usize) << 2);
    const step = (1 << (k - 1)) as usize;
    const n = stride - (1 << k) + 1;
    let x = 0;
    for (; x + 4 <= n; x += 4) {
      const p = from + ((x as usize) << 2);
      v128.store(to + ((x as usize) << 2), f32x4.pmax(v128.load(p), v128.load(p + (step << 2))));
    }
    for (; x < n; x++) {
      const p = from + ((x as usize) << 2);
      f32.store(to + ((x as usize) << 2), max(f32.load(p), f32.load(p + (step << 2))));
    }
  }
}

/**
 * Flat-ended offset: max of h over a disc. maxima: for every source row, `levels` rows as rowMaxima writes them;
 * half: for dy = -R..R the half width of the disc in cells.
 */
export function flatBand(
  maxima: usize, half: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, rows: i32, R: i32, levels: i32,
): void {
  for (let y = 0; y < rows; y++) {
    const out = dst + (((y * width16) as usize) << 2);
    const low = f32x4.splat(-BIG);
    for (let i: usize = 0, e: usize = (width16 as usize) << 2; i < e; i += 16) v128.store(out + i, low);
    for (let dy = -R; dy <= R; dy++) {
      const w = i32.load(half + (((dy + R) as usize) << 2));
      const span = 2 * w + 1;
      const k = 31 - clz(span);
      const row = maxima + ((((y + R + dy) * levels + k) as usize) * (stride as usize) << 2);
      const lp = row + (((pad - w) as usize) << 2);
      const rp = row + (((pad + w + 1 - (1 << k)) as usize) << 2);
      for (let i: usize = 0, e: usize = (width16 as usize) << 2; i < e; i += 16) {
        v128.store(out + i, f32x4.pmax(v128.load(out + i), f32x4.pmax(v128.load(lp + i), v128.load(rp + i))));
      }
    }
  }
}
