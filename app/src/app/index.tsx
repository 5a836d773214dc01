export { ShelfScreen as default } from '../features/line/ShelfScreen';
