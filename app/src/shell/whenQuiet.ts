/** However busy somebody is, it is begun after that: the network may go. Somebody who splices rests far more often. ms */
const latestMs = 2 * 60_000;
const inputs = ['pointerdown', 'keydown'] as const;

/**
 * Does work in the background once nobody has touched the page for a while, so that it holds up no tap.
 * @param restMs how long nobody touched it; counted from now on
 * @returns what calls it off
 */
export function whenQuiet(work: () => void, restMs: number): () => void {
  const end = () => {
    clearTimeout(quiet);
    clearTimeout(latest);
    inputs.forEach((input) => window.removeEventListener(input, touched, true));
  };
  const begin = () => {
    end();
    work();
  };
  const touched = () => {
    clearTimeout(quiet);
    quiet = setTimeout(begin, restMs);
  };
  let quiet = setTimeout(begin, restMs);
  const latest = setTimeout(begin, latestMs);
  inputs.forEach((input) => window.addEventListener(input, touched, true));
  return end;
}
