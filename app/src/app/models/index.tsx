import { CatalogueScreen } from '../../features/plan/models/CatalogueScreen';

export default CatalogueScreen;
