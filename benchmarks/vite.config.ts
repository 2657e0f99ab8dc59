import { fileURLToPath } from 'node:url';
import { inTab } from '../vite.config';

export default { ...inTab, root: fileURLToPath(new URL('pages', import.meta.url)) };
