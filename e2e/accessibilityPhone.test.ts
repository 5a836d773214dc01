import { axeOn } from './support/screens';

/** axe on every screen of a phone. */
axeOn('phone');
