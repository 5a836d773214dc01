import { later } from '../../ui/later';

export default later('the page', async () => (await import('../../features/fetchedLater')).GearScreen);
