export { CatalogueScreen as default } from '../../features/plan/models/CatalogueScreen';
