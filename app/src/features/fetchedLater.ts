/**
 * Every screen and sheet that is fetched once the first one stands, in one piece. They share nearly everything (fields, lists, what the core knows of
 * plans and cables), and what several pieces share would be put into the first load.
 */
export { gearAtBench } from './splice/gear/gearAtBench';
export { GearFormScreen } from './gear/GearFormScreen';
export { GearScreen } from './gear/GearScreen';
export { LossesScreen } from './handover/LossesScreen';
export { KitScreen } from './kit/KitScreen';
export { LimitsScreen } from './limits/LimitsScreen';
export { CableFormScreen } from './line/cables/CableFormScreen';
export { CableScreen } from './line/cables/CableScreen';
export { NewProjectScreen } from './line/shelf/NewProjectScreen';
export { SettingsScreen } from './line/route/SettingsScreen';
export { SiteScreen } from './line/route/SiteScreen';
export { CatalogueScreen } from './plan/models/CatalogueScreen';
export { FollowScreen } from './plan/follow/FollowScreen';
export { ModelScreen } from './plan/models/ModelScreen';
export { PlanScreen } from './plan/order/PlanScreen';
export { TableScreen } from './plan/models/TableScreen';
export { BeforeScreen } from './prepare/steps/BeforeScreen';
export { CutSheetScreen } from './prepare/cut/CutSheetScreen';
export { PreferencesSheet } from '../shell/PreferencesSheet';
export { PrepareScreen } from './prepare/PrepareScreen';
export { SealsScreen } from './prepare/seals/SealsScreen';
export { StepsScreen } from './prepare/steps/StepsScreen';
export { TimeScreen } from './prepare/time/TimeScreen';
export { BeforeArcPanel } from './splice/bench/panels/BeforeArcPanel';
export { BenchQuestion } from './splice/bench/questions/BenchQuestion';
export { BenchSheets } from './splice/bench/BenchSheets';
export { DetailsPanel } from './splice/bench/panels/DetailsPanel';
export { HeaterStrip } from './splice/bench/clocks/HeaterStrip';
export { LightPad } from './splice/bench/panels/LightPad';
export { PaceLine } from './splice/bench/clocks/PaceLine';
export { adviseBeforeArc, arcLimits, gearBook, joinBooks, nothingSeen } from '@cordel/core/gear';
export { redosLeft } from '@cordel/core/prepare';
