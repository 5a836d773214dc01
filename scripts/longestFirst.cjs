const { default: Sequencer } = require('@jest/test-sequencer');

/**
 * What takes longest begins first, so that at the end no file runs alone. Jest knows how long files took from earlier
 * runs only, and else goes by their size, which says nothing of a journey: those come first, those over every screen
 * before the others.
 */
module.exports = class LongestFirst extends Sequencer {
  sort(tests) {
    const rank = ({ path, context }) => {
      const of = context.config.displayName.name;
      if (of === 'e2e') return /\/screens\w*\.test\.ts$/.test(path) ? 0 : 1;
      return of.startsWith('server') ? 2 : 3;
    };
    // Stable: within a rank in the order that Jest would take.
    return [...super.sort(tests)].sort((one, other) => rank(one) - rank(other));
  }
};
