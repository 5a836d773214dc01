import { lookAt } from './support/look';
import { machineScreens } from './support/screens/machine';

lookAt(machineScreens);
