/** npm run demo: Cordel with the demo scenario on its shelf. */
import { serve } from './serve.mjs';

await serve({ folder: 'demo', args: ['--demo'] });
