/** A program that cannot be followed; the message names the line. */
export class ProgramError extends Error {}

/** A straight motion in the program's own coordinates, mm: x0 y0 z0 x1 y1 z1, rapid (0 or 1), feed (mm/min), line. */
export const MOTION = 9;

export interface ReadProgram {
  /** MOTION numbers each. */
  motions: Float64Array;
  /** Tool selected for each stretch of motions: from that motion on, this tool. */
  tools: { from: number; tool: number }[];
  /** Highest spindle speed commanded, rpm. */
  topRpm: number;
  /** Line of the first cutting motion that runs with the spindle stopped, or 0. */
  spindleOffLine: number;
  comments: string[];
}

const ARC_CHORD = 0.002;

/**
 * Reads RS-274 text as the RS-274/NGC report describes it (NIST IR 6556; from memory): words in any order on a line,
 * comments in parentheses or after a semicolon, modal groups, G0 G1 G2 G3, planes G17 G18 G19, G20 G21, G90 G91, arcs by
 * centre (I J K from the start) or radius. Arcs become chords within 0.002 mm. The start position is unknown until an
 * axis has been named, so the first motion of each axis starts where it ends.
 * Shares no code with the writer.
 * @throws ProgramError for anything it cannot follow to the letter
 */
export function readProgram(text: string, file: string, firstTool = 0): ReadProgram {
  let buffer = new Float64Array(MOTION * 4096);
  let used = 0;
  const out: ReadProgram = {
    motions: buffer,
    tools: [{ from: 0, tool: firstTool }],
    topRpm: 0,
    spindleOffLine: 0,
    comments: [],
  };
  const position = [NaN, NaN, NaN];
  let scale = 1;
  let absolute = true;
  let motion = -1;
  let feed = 0;
  let plane = 17;
  let spindle = false;
  let speed = 0;
  let pending = firstTool;
  let ended = false;
  let number = 0;

  const fail = (what: string): never => {
    throw new ProgramError(`${file}, line ${number}: ${what}`);
  };
  const push = (to: number[], rapid: boolean) => {
    const from = position.map((p, i) => (Number.isNaN(p) ? to[i] : p));
    if (!rapid && feed <= 0) fail('a cutting motion without a feed');
    if (!rapid && !spindle && out.spindleOffLine === 0) out.spindleOffLine = number;
    if (used + MOTION > buffer.length) {
      const grown = new Float64Array(buffer.length * 2);
      grown.set(buffer);
      buffer = grown;
    }
    buffer[used] = from[0];
    buffer[used + 1] = from[1];
    buffer[used + 2] = from[2];
    buffer[used + 3] = to[0];
    buffer[used + 4] = to[1];
    buffer[used + 5] = to[2];
    buffer[used + 6] = rapid ? 1 : 0;
    buffer[used + 7] = feed;
    buffer[used + 8] = number;
    used += MOTION;
    for (let i = 0; i < 3; i++) position[i] = to[i];
  };

  const arc = (to: number[], words: Map<string, number>, clockwise: boolean) => {
    if (position.some(Number.isNaN)) fail('an arc from an unknown place');
    // First and second axis of the plane, and the one across it, so that the plane is seen from its positive side.
    const [a, b, c] = plane === 17 ? [0, 1, 2] : plane === 18 ? [2, 0, 1] : [1, 2, 0];
    const letters = ['I', 'J', 'K'];
    const from = position.slice();
    let ca: number;
    let cb: number;
    const r = words.get('R');
    if (r !== undefined) {
      const R = Math.abs(r) * scale;
      const dx = to[a] - from[a];
      const dy = to[b] - from[b];
      const d = Math.hypot(dx, dy);
      if (d < 1e-9) fail('a radius arc that ends where it starts');
      if (d / 2 > R * 1.001) fail(`an arc of radius ${R} mm cannot span ${d.toFixed(3)} mm`);
      const h = Math.sqrt(Math.max(0, R * R - (d * d) / 4));
      // A positive radius is the arc of at most half a turn.
      const side = clockwise === r > 0 ? 1 : -1;
      ca = (from[a] + to[a]) / 2 + (side * h * dy) / d;
      cb = (from[b] + to[b]) / 2 - (side * h * dx) / d;
    } else {
      if (!words.has(letters[a]) && !words.has(letters[b])) fail('an arc without centre or radius');
      ca = from[a] + (words.get(letters[a]) ?? 0) * scale;
      cb = from[b] + (words.get(letters[b]) ?? 0) * scale;
    }
    const R = Math.hypot(from[a] - ca, from[b] - cb);
    const R1 = Math.hypot(to[a] - ca, to[b] - cb);
    if (Math.abs(R - R1) > Math.max(0.01, R * 0.001))
      fail(`the arc's ends lie ${R.toFixed(3)} and ${R1.toFixed(3)} mm from its centre`);
    const t0 = Math.atan2(from[b] - cb, from[a] - ca);
    let sweep = Math.atan2(to[b] - cb, to[a] - ca) - t0;
    if (clockwise) while (sweep >= -1e-9) sweep -= 2 * Math.PI;
    else while (sweep <= 1e-9) sweep += 2 * Math.PI;
    const step = 2 * Math.acos(Math.max(0, 1 - ARC_CHORD / Math.max(R, ARC_CHORD)));
    const n = Math.max(1, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-3)));
    const start = from[c];
    for (let i = 1; i <= n; i++) {
      const p = to.slice();
      if (i < n) {
        const t = t0 + (sweep * i) / n;
        p[a] = ca + R * Math.cos(t);
        p[b] = cb + R * Math.sin(t);
        p[c] = start + ((to[c] - start) * i) / n;
      }
      push(p, false);
    }
  };

  const word = /([A-Z])\s*([+-]?\s*(?:\d+\.?\d*|\.\d+))/y;
  for (let at = 0; at < text.length && !ended; ) {
    let end = text.indexOf('\n', at);
    if (end < 0) end = text.length;
    let line = text.slice(at, end);
    at = end + 1;
    number++;
    if (line.includes('(') || line.includes(';')) {
      line = line.replace(/\(([^()]*)\)/g, (_, c: string) => {
        out.comments.push(c);
        return ' ';
      });
      const semicolon = line.indexOf(';');
      if (semicolon >= 0) line = line.slice(0, semicolon);
      if (/[()]/.test(line)) fail('a comment that is not closed');
    }
    line = line.trim().toUpperCase();
    if (line === '' || line === '%' || line[0] === '/') continue;
    const words = new Map<string, number>();
    const g: number[] = [];
    const m: number[] = [];
    word.lastIndex = 0;
    while (word.lastIndex < line.length) {
      const from = word.lastIndex;
      const match = word.exec(line);
      if (!match) {
        if (/^\s+$/.test(line.slice(from))) break;
        const gap = /^\s+/.exec(line.slice(from));
        if (!gap) fail(`"${line.slice(from, from + 12)}" is not a word`);
        word.lastIndex = from + (gap as RegExpExecArray)[0].length;
        continue;
      }
      const value = Number(match[2].replace(/\s/g, ''));
      if (match[1] === 'G') g.push(value);
      else if (match[1] === 'M') m.push(value);
      else if (words.has(match[1])) fail(`the word ${match[1]} twice`);
      else words.set(match[1], value);
    }
    for (const letter of words.keys()) if (!'NXYZIJKRFSTPLHD'.includes(letter)) fail(`an unknown word ${letter}`);
    let motionHere = false;
    for (const code of g) {
      if (code === 0 || code === 1 || code === 2 || code === 3) {
        if (motionHere) fail('two motions on one line');
        motion = code;
        motionHere = true;
      } else if (code === 17 || code === 18 || code === 19) plane = code;
      else if (code === 20) scale = 25.4;
      else if (code === 21) scale = 1;
      else if (code === 90) absolute = true;
      else if (code === 91) absolute = false;
      else if (code === 80) motion = -1;
      else if (![4, 40, 49, 54, 61, 64, 91.1, 94].includes(code)) fail(`G${code} is not followed by this reader`);
    }
    const f = words.get('F');
    if (f !== undefined) feed = f * scale;
    const s = words.get('S');
    if (s !== undefined) speed = s;
    const t = words.get('T');
    if (t !== undefined) pending = t;
    for (const code of m) {
      if (code === 3 || code === 4) spindle = true;
      else if (code === 5) spindle = false;
      else if (code === 6) out.tools.push({ from: used / MOTION, tool: pending });
      else if (code === 2 || code === 30) ended = true;
      else if (![0, 1, 7, 8, 9].includes(code)) fail(`M${code} is not followed by this reader`);
    }
    if (spindle) out.topRpm = Math.max(out.topRpm, speed);
    if (g.includes(4)) continue;
    const axes = ['X', 'Y', 'Z'];
    if (
      !axes.some((a) => words.has(a)) &&
      !(motionHere && motion >= 2 && (words.has('I') || words.has('J') || words.has('K')))
    )
      continue;
    if (motion < 0) fail('a place without a motion (no G0 to G3 in force)');
    const to = axes.map((a, i) => {
      const v = words.get(a);
      if (v === undefined) return position[i];
      if (!absolute && Number.isNaN(position[i])) fail('a relative motion from an unknown place');
      return absolute ? v * scale : position[i] + v * scale;
    });
    if (to.some(Number.isNaN)) {
      // An axis not named yet: remember the others, nothing can be cut before all three are known.
      if (motion !== 0) fail('a cutting motion before every axis has a place');
      for (let i = 0; i < 3; i++) position[i] = to[i];
      continue;
    }
    if (motion <= 1) push(to, motion === 0);
    else arc(to, words, motion === 2);
  }
  out.motions = buffer.subarray(0, used);
  return out;
}
