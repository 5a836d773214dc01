import { axeOn } from './support/screens';

/** axe on every screen of a laptop. */
axeOn('wide');
