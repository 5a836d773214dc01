import '../withoutEval';
import { expose } from 'comlink';
import { logService } from './logService';

/** Reads machines' logs off the main thread. */
expose(logService());
