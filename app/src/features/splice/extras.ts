/** Sheets of the bench that are fetched once it stands. */
export { HistorySheet } from './HistorySheet';
export { KeysSheet } from './KeysSheet';
export { PasteSheet } from './PasteSheet';
