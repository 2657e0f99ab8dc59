import fc from 'fast-check';

/** What tests draw at random is the same every time, so that what is landed does not hang on luck; `npm run thorough` draws anew. */
if (!process.env.THOROUGH) fc.configureGlobal({ seed: 20_261_130 });
