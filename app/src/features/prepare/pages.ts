/**
 * All pages of the preparation, fetched together: they share nearly everything, and what several fetched parts share would be in the first load.
 */
export { BeforeScreen } from './BeforeScreen';
export { CutSheetScreen } from './CutSheetScreen';
export { PrepareScreen } from './PrepareScreen';
export { SealsScreen } from './SealsScreen';
export { StepsScreen } from './StepsScreen';
export { TimeScreen } from './TimeScreen';
