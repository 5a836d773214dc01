export { ShelfScreen as default } from '../features/line/shelf/ShelfScreen';
