import { config, z } from 'zod';

// Zod makes faster checks by building functions from text, which the page's security policy forbids; it has to know before the first
// schema is made, so that schemas take their `z` from here.
if (typeof window !== 'undefined' || 'WorkerGlobalScope' in globalThis) config({ jitless: true });

export { z };
