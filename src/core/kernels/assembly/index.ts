export { blockMax8, offsetBand, rowMaxima, flatBand, slideRows, offsetLines } from './offset';
export { sweep } from './sweep';
export function heapBase(): usize { return __heap_base; }
