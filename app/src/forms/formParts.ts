/** Everything that is made with the library of forms. One piece on its own, since what two pages share is otherwise in the first load of all. */
export { LimitsScreen } from '../features/limits/LimitsScreen';
export { NewProjectScreen } from '../features/line/shelf/NewProjectScreen';
export { ModelScreen } from '../features/plan/models/ModelScreen';
export { TableScreen } from '../features/plan/models/TableScreen';
export { MeasureScreen } from '../features/splice/measure/MeasureScreen';
export { CorrectionForm } from '../features/splice/record/CorrectionForm';
