import '../withoutEval';
import { expose } from 'comlink';
import { nightsService } from './nightsService';

/** Plans the nights off the main thread. */
expose(nightsService());
