import { benchLedger } from './ledger';
import { benchPlan } from './plan';
import { benchPlanTyping } from './planTyping';
import { benchServer } from './server';
import { benchStart } from './start';
import { benchRibbonTap, benchTap } from './tap';

/** npm run bench: prints figures beside their targets. Nothing fails here; times depend on the machine. */
async function main() {
  benchLedger();
  benchPlan();
  await benchServer();
  await benchTap();
  await benchRibbonTap();
  await benchPlanTyping();
  await benchStart();
}

void main();
