/** What nobody can lose by a page that is loaded anew: see `somebodyEnters`. */

const inputs = ['pointerdown', 'keydown'] as const;
let lastInput = 0;

/** Notes when somebody touched this page last. Returns what ends that. */
export function watchInput(): () => void {
  const note = () => (lastInput = Date.now());
  inputs.forEach((input) => window.addEventListener(input, note, true));
  return () => inputs.forEach((input) => window.removeEventListener(input, note, true));
}

/** How long nobody touches a page before it is at rest. ms */
const restMs = 10_000;

const fields = 'input:not([type=file]), textarea, select, [contenteditable=true]';

/**
 * Whether somebody is at something on this page that would be gone, or would startle, if it were loaded anew: a form, a sheet, or a touch a moment ago. A page
 * that is not in sight is not touched.
 */
export function somebodyEnters(): boolean {
  const shown = (element: Element) => element.getClientRects().length > 0;
  if ([...document.querySelectorAll(`${fields}, [role=dialog], [aria-modal=true]`)].some(shown)) return true;
  return document.visibilityState === 'visible' && Date.now() - lastInput < restMs;
}
