export { NewProjectScreen as default } from '../features/line/NewProjectScreen';
