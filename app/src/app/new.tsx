import { NewProjectScreen } from '../features/line/shelf/NewProjectScreen';

export default NewProjectScreen;
