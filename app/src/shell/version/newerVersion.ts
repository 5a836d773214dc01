import { useSyncExternalStore } from 'react';
import { Listeners } from '../../sync/listeners';
import { somebodyEnters, watchInput } from './entering';

/**
 * A newer Cordel, fetched by the browser beside the one that runs. It is taken when nobody enters anything in any tab of this device: the page is loaded anew where it
 * stands. What waits to be sent is on the disk, and is sent by whichever version comes next.
 */

/** "ready": fetched, and not taken yet; "renewed": this page is of a version that was just taken. */
export type NewerVersion = 'none' | 'ready' | 'renewed';

/** How often it is looked whether the page is at rest, once a newer version is there. ms */
const lookMs = 2000;
/** How often the server is asked for a newer one, at most, and while nothing else happens. ms */
const askMs = 60_000;
const longestMs = 15 * 60_000;
/** How long other tabs have to say that somebody enters something there. ms */
const answerMs = 500;
/** How long the word stands that the page is of a newer version. ms */
const saidMs = 20_000;
const renewedKey = 'cordel.renewed';

let state: NewerVersion = 'none';
const listeners = new Listeners();
const say = (next: NewerVersion) => {
  state = next;
  listeners.tell();
};

export function useNewerVersion(): NewerVersion {
  return useSyncExternalStore(listeners.subscribe, () => state);
}

type Word = 'somebody enters?' | 'yes';

/** Watches for a newer version of what this registration keeps, and takes it. Returns what ends that. */
export function watchForNewer(registration: ServiceWorkerRegistration): () => void {
  const { serviceWorker } = navigator;
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('cordel-version');
  let answered = false;
  // Without one this page came from the server itself, and the first one that takes it over is of the same version.
  let controlled = serviceWorker.controller !== null;
  let looking: ReturnType<typeof setInterval> | undefined;
  let askedAt = Date.now();
  let asking = false;

  const heard = ({ data }: MessageEvent<Word>) => {
    if (data === 'yes') answered = true;
    else if (somebodyEnters()) channel?.postMessage('yes' satisfies Word);
  };
  const elsewhere = async () => {
    answered = false;
    channel?.postMessage('somebody enters?' satisfies Word);
    await new Promise((done) => setTimeout(done, channel ? answerMs : 0));
    return answered;
  };
  const look = async () => {
    if (asking || somebodyEnters()) return;
    asking = true;
    if (!(await elsewhere()) && !somebodyEnters())
      registration.waiting?.postMessage({ type: 'SKIP_WAITING' });
    asking = false;
  };
  const ready = () => {
    if (!registration.waiting || !controlled) return;
    say('ready');
    looking ??= setInterval(() => void look(), lookMs);
    void look();
  };
  const coming = () => registration.installing?.addEventListener('statechange', ready);
  const taken = () => {
    if (!controlled) {
      controlled = true;
      return;
    }
    // Somebody may have begun to enter something in this tab just now: then as soon as that is over.
    clearInterval(looking);
    const anew = () => {
      if (somebodyEnters()) return;
      sessionStorage.setItem(renewedKey, 'yes');
      window.location.reload();
    };
    looking = setInterval(anew, lookMs / 4);
    anew();
  };
  const ask = (least: number) => {
    if (Date.now() - askedAt < least) return;
    askedAt = Date.now();
    void registration.update().catch(() => undefined);
  };
  const back = () => {
    if (document.visibilityState === 'visible') ask(askMs);
  };

  const noInput = watchInput();
  channel?.addEventListener('message', heard);
  registration.addEventListener('updatefound', coming);
  serviceWorker.addEventListener('controllerchange', taken);
  window.addEventListener('online', back);
  document.addEventListener('visibilitychange', back);
  const asks = setInterval(() => ask(longestMs), askMs);
  coming();
  ready();
  return () => {
    noInput();
    channel?.close();
    registration.removeEventListener('updatefound', coming);
    serviceWorker.removeEventListener('controllerchange', taken);
    window.removeEventListener('online', back);
    document.removeEventListener('visibilitychange', back);
    clearInterval(asks);
    clearInterval(looking);
  };
}

/** Says, for a moment, that this page is of a newer version than the one before it. */
export function sayRenewed(): void {
  if (sessionStorage.getItem(renewedKey) === null) return;
  sessionStorage.removeItem(renewedKey);
  say('renewed');
  setTimeout(() => state === 'renewed' && say('none'), saidMs);
}
