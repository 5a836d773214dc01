export { NewProjectScreen as default } from '../features/line/shelf/NewProjectScreen';
