/**
 * Every screen and sheet that is fetched once the first one stands, in one piece. They share nearly everything (fields, lists, what the core knows of
 * plans and cables), and what several pieces share would be put into the first load.
 */
export { gearAtBench } from './gear/gearAtBench';
export { GearFormScreen } from './gear/GearFormScreen';
export { GearScreen } from './gear/GearScreen';
export { LossesScreen } from './handover/LossesScreen';
export { KitScreen } from './kit/KitScreen';
export { LimitsScreen } from './limits/LimitsScreen';
export { CableFormScreen } from './line/CableFormScreen';
export { CableScreen } from './line/CableScreen';
export { NewProjectScreen } from './line/NewProjectScreen';
export { SettingsScreen } from './line/SettingsScreen';
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
export { BeforeArcPanel } from './splice/BeforeArcPanel';
export { BenchQuestion } from './splice/BenchQuestion';
export { BenchSheets } from './splice/BenchSheets';
export { DetailsPanel } from './splice/DetailsPanel';
export { HeaterStrip } from './splice/HeaterStrip';
export { LightPad } from './splice/LightPad';
export { PaceLine } from './splice/PaceLine';
export { adviseBeforeArc, arcLimits, gearBook, joinBooks, nothingSeen } from '@cordel/core/gear';
export { redosLeft } from '@cordel/core/prepare';
