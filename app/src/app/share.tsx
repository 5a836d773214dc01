export { SharedScreen as default } from '../features/splice/log/SharedScreen';
