import { readAhead } from './ledger/readAhead';

// Small, so that the databases are read while the program is still being fetched. The page preloads the program (vite.config.ts).
const ahead = readAhead();
void import('./program').then(({ begin }) => {
  begin(ahead);
});
