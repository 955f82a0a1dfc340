import fc from 'fast-check';

/**
 * Property tests draw the same examples at every run, so that a run that was good is good again; `ZG_SEED` draws others:
 * `npm run attack seeds` goes through many.
 */
fc.configureGlobal({ seed: Number(process.env.ZG_SEED ?? 20) });
