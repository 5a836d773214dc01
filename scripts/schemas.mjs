/** npm run schemas: writes docs/as-built.schema.json anew from the schemas of the core. A test says where it is not as they are. */
import { bundleAndRun } from './bundleAndRun.mjs';

process.exit(await bundleAndRun('e2e/printSchemas.ts'));
