import { benchJudge } from './judge';
import { benchKill } from './kill';
import { benchLedger } from './ledger';
import { benchListen } from './listen';
import { benchLosses } from './losses';
import { benchMachine } from './machine';
import { benchNight } from './night';
import { benchNights } from './nights';
import { benchPhotos } from './photos';
import { benchPlan } from './plan';
import { benchPlanTyping } from './planTyping';
import { benchRecord } from './record';
import { benchServer } from './server';
import { benchShelf } from './shelf';
import { benchStart } from './start';
import { benchRibbonTap, benchTap } from './tap';

const benches: readonly (readonly [string, () => unknown])[] = [
  ['ledger', benchLedger],
  ['judge', benchJudge],
  ['machine', benchMachine],
  ['listen', benchListen],
  ['nights', benchNights],
  ['plan', benchPlan],
  ['server', benchServer],
  ['record', benchRecord],
  ['losses', benchLosses],
  ['photos', benchPhotos],
  ['shelf', benchShelf],
  ['kill', benchKill],
  ['tap', benchTap],
  ['tap', benchRibbonTap],
  ['night', benchNight],
  ['typing', benchPlanTyping],
  ['start', benchStart],
];

/** npm run bench: prints figures beside their targets. Nothing fails here; times depend on the machine. */
async function main() {
  const chosen = process.argv.slice(2);
  for (const [name, bench] of benches) if (chosen.length === 0 || chosen.includes(name)) await bench();
}

void main();
