import '../withoutEval';
import { expose } from 'comlink';
import { judgeService } from './judgeService';

/** Watches over the readings of a job off the main thread. */
expose(judgeService());
