export { GearScreen as default } from '../../features/gear/GearScreen';
