/**
 * Goes ahead of a server whose clock a test moves: it runs as everywhere, and with each SIGUSR2 half a minute goes by
 * at once, with all that happens in it, such as a machine that splices.
 */
import { install } from '@sinonjs/fake-timers';

const clock = install({
  shouldAdvanceTime: true,
  advanceTimeDelta: 10,
  toFake: ['Date', 'setTimeout', 'clearTimeout'],
});
process.on('SIGUSR2', () => void clock.tickAsync(30_000));
