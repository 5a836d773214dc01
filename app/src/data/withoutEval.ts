import { config } from 'zod';

// Zod would otherwise try whether the page may build code from text. The server's policy forbids that, and the browser reports the
// try. Imported first by what reads stored data while it loads, since it has to come before the schemas are made.
config({ jitless: true });
