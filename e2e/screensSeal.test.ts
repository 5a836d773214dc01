import { lookAt } from './support/look';
import { sealScreens } from './support/screens/seal';

lookAt(sealScreens);
