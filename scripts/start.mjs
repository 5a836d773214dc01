/** npm start: Cordel with an empty shelf the first time, and your own projects after that. */
import { serve } from './serve.mjs';

await serve({ folder: 'work', args: [] });
