export { NewProjectScreen as default } from '../forms';
