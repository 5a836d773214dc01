import '../withoutEval';
import { OwnStandIns } from '@cordel/core/machine';
import { expose } from 'comlink';
import { v4 } from 'uuid';
import { serveMachines } from './serveMachines';
import { serverMachines } from './serverLink';

/** Hears splicing machines off the main thread, and has two that are simulated, which need no network. */

const timers = {
  now: () => Date.now(),
  after: (ms: number, work: () => void) => {
    const timer = setTimeout(work, Math.min(ms, 2 ** 31 - 1));
    return () => clearTimeout(timer);
  },
};

const newSeed = () => crypto.getRandomValues(new Uint32Array(1))[0]!;

// The page says in the worker's name which device asks.
expose(serveMachines(new OwnStandIns(timers, v4, newSeed), serverMachines('/api', self.name)));
