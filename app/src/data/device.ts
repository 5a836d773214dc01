import './withoutEval';
import { idSchema } from '@cordel/core';
import { v7 } from 'uuid';
import { storedValue } from './stored';

const kept = storedValue<string | null>('device', idSchema, null);
if (kept.get() === null) kept.set(v7());

/** This device, as others see it: made once and kept on it. Two people with one phone are one device, one person with two phones is two. */
export const device = kept.get()!;
