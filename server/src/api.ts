/** What the app may know of the server: the type of its API. */
export type { Api } from './app';
