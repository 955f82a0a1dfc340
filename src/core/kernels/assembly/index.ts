export { blockMax8, offsetBand, rowMaxima, flatBand, slideRows, offsetLines } from './offset';
export { sweep } from './sweep';
export { drumBand } from './drum-offset';
export { drumFlatBand } from './drum-flat';
export function heapBase(): usize { return __heap_base; }
export { drumSweep } from './drum-sweep';
