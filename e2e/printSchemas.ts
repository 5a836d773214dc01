import { asBuiltJsonSchema } from '@cordel/core/asBuilt';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Writes the JSON Schemas of what is handed over, made from the schemas that the server writes by, into docs/. */
writeFileSync(
  join(process.env.CORDEL_ROOT!, 'docs/as-built.schema.json'),
  `${JSON.stringify(asBuiltJsonSchema(), null, 2)}\n`,
);
