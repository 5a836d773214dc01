import { lookAt } from './support/look';
import { prepareScreens } from './support/screens/prepare';

lookAt(prepareScreens);
