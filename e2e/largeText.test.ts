import { everyScreen, goTo, pageFor, screens, shelfAddress } from './support/screens';

/** Every screen with text at 200 %. */

everyScreen();

describe('at 200 % text', () => {
  const page = pageFor({}, async (opened) => {
    await opened.goto(shelfAddress());
    await opened.evaluate(() => localStorage.setItem('cordel.preferences', JSON.stringify({ textSize: 2 })));
  });

  test.each(screens)(
    '$name loses nothing to the side',
    async (screen) => {
      await goTo(page(), screen);
      const cut = await page().evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('[dir="auto"]')]
          .filter((element) => element.innerText.trim() !== '' && element.getClientRects().length > 0)
          // A pixel wide are the words that only a screen reader says.
          .filter((element) => element.offsetWidth > 1)
          .filter((element) => {
            const box = element.getBoundingClientRect();
            return (
              box.right > window.innerWidth + 1 ||
              box.left < -1 ||
              element.scrollWidth > element.clientWidth + 1
            );
          })
          .map((element) => element.innerText),
      );
      expect(cut).toEqual([]);
    },
    60_000,
  );
});
