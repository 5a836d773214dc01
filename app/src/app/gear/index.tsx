import { GearScreen } from '../../features/gear/GearScreen';

export default GearScreen;
