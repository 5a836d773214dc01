/**
 * Counts how often tests call `expect`, for the summary of `npm test`, so that nobody loses a check without seeing it.
 */
const { appendFileSync } = require('node:fs');

const file = process.env.CORDEL_EXPECTS;
if (file) {
  let calls = 0;
  globalThis.expect = new Proxy(globalThis.expect, {
    apply(expect, self, given) {
      calls += 1;
      return Reflect.apply(expect, self, given);
    },
  });
  globalThis.afterAll(() => appendFileSync(file, `${calls}\n`));
}
