import { config } from 'zod';

// Zod would otherwise try whether the page may build code from text. The server's policy forbids that, and the browser reports the
// try. Imported by the modules that read stored data while they load, since it has to come before the first parse.
config({ jitless: true });
