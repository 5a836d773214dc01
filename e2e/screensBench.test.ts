import { lookAt } from './support/look';
import { benchScreens } from './support/screens/bench';

lookAt(benchScreens);
