import { v7 } from 'uuid';
import { keep, recall } from './stored';

const key = 'device';
const known = recall(key);

/** This device, as others see it: made once and kept on it. Two people with one phone are one device, one person with two phones is two. */
export const device = typeof known === 'string' ? known : v7();
if (known !== device) keep(key, device);
