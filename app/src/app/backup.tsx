export { BackupScreen as default } from '../features/backup/BackupScreen';
