import { lookAt } from './support/look';
import { lineScreens } from './support/screens/line';

lookAt(lineScreens);
