/**
 * Every screen and sheet that is fetched once the first one stands, in one piece. They share nearly everything (fields, lists, what the core knows of
 * plans and cables), and what several pieces share would be put into the first load.
 */
export { gearAtBench } from './gear/gearAtBench';
export { GearFormScreen } from './gear/GearFormScreen';
export { GearScreen } from './gear/GearScreen';
export { GearSheet } from './gear/GearSheet';
export { DueQuestion } from './gear/DueQuestion';
export { PickQuestion } from './gear/PickQuestion';
export { LossesScreen } from './handover/LossesScreen';
export { KitScreen } from './kit/KitScreen';
export { LimitsScreen } from './limits/LimitsScreen';
export { CableFormScreen } from './line/CableFormScreen';
export { CableScreen } from './line/CableScreen';
export { NewProjectScreen } from './line/NewProjectScreen';
export { SiteScreen } from './line/SiteScreen';
export { CatalogueScreen } from './plan/CatalogueScreen';
export { FollowScreen } from './plan/FollowScreen';
export { ModelScreen } from './plan/ModelScreen';
export { PlanScreen } from './plan/PlanScreen';
export { TableScreen } from './plan/TableScreen';
export { BeforeScreen } from './prepare/BeforeScreen';
export { CutSheetScreen } from './prepare/CutSheetScreen';
export { PreferencesSheet } from './line/PreferencesSheet';
export { PrepareScreen } from './prepare/PrepareScreen';
export { SealsScreen } from './prepare/SealsScreen';
export { StepsScreen } from './prepare/StepsScreen';
export { TimeScreen } from './prepare/TimeScreen';
export { DetailsPanel } from './splice/DetailsPanel';
export { HistorySheet } from './splice/HistorySheet';
export { KeysSheet } from './splice/KeysSheet';
export { PasteSheet } from './splice/PasteSheet';
export { PolarityCheck } from './splice/PolarityCheck';
export { adviseBeforeArc, arcLimits, gearBook, heaterLane, joinBooks, sleevesOf } from '@cordel/core/gear';
export { benchPace, redosLeft, usualPace } from '@cordel/core/prepare';
