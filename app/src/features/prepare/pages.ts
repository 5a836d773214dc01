/**
 * All pages of the preparation, fetched together: they share nearly everything, and what several fetched parts share would be in the first load.
 */
export { BeforeScreen } from './BeforeScreen';
export { CutSheetScreen } from './CutSheetScreen';
export { PrepareScreen } from './PrepareScreen';
export { SealsScreen } from './SealsScreen';
export { StepsScreen } from './StepsScreen';
export { TimeScreen } from './TimeScreen';
// The bench asks and counts with the same parts.
export { PolarityCheck } from '../splice/PolarityCheck';
export { redosLeft } from '@cordel/core/prepare';
