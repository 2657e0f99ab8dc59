import { warmUp } from './ledger/databases';

// Small, so that the databases open while the program is still being fetched. The page preloads the program (vite.config.ts).
warmUp();
void import('./program');
