/** What the experienced splicer beside you would say. An entrance of its own. */
export * from './judge';
export * from './keeper';
export * from './nights/jobs';
export * from './nights/rates';
export * from './nights/scenarios';
export * from './nights/workedNight';
export * from './odds/record';
export * from './odds/redoOdds';
export * from './odds/costs';
export * from './said';
export * from './odds/goodJoint';
export * from './series/seriesOf';
export * from './series/tried';
export * from './watch/causes';
export * from './watch/family';
export * from './watch/rule';
export * from './watch/saw';
