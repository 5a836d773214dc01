import { newNightsSetup, ruleOf, type Closure, type NightsSetup, type Site } from '@cordel/core';
import { dayMinute } from '@cordel/core/schedule';
import { usedGear, usedRibbonGear } from './gear';

/** What the demo's nights are planned from: two crews, this night and the two after it. */
export function threeNights(
  id: () => string,
  zone: string,
  window: (night: number) => { readonly opens: Date; readonly closes: Date },
  at: {
    readonly start: Site;
    readonly u2: Closure;
    readonly u3: Closure;
    readonly school: Closure;
    readonly m1: Closure;
  },
): NightsSetup {
  const nights = [0, 1, 2].map((night) => {
    const { opens, closes } = window(night);
    return { id: id(), opens: opens.toISOString(), closes: closes.toISOString() };
  });
  const rule = (closure: Closure) => ruleOf(newNightsSetup, closure.id);
  const crew = { calibration: 10 * 60, startSiteId: at.start.id, offNightIds: [] };
  return {
    ...newNightsSetup,
    nights,
    crews: [
      {
        ...crew,
        id: id(),
        name: 'Iara and Davi',
        people: ['Iara', 'Davi'],
        machines: [
          { gearId: usedGear.machine.id, name: usedGear.machine.label, splices: 'single', heaters: 1 },
          {
            gearId: usedRibbonGear.machine.id,
            name: usedRibbonGear.machine.label,
            splices: 'ribbon',
            heaters: 1,
          },
        ],
        contacts: 'Night desk of the district: ask for the ring, section 2',
      },
      {
        ...crew,
        id: id(),
        name: 'Noa',
        people: ['Noa'],
        machines: [{ gearId: null, name: 'Single 2', splices: 'single', heaters: 1 }],
        contacts: '',
      },
    ],
    rules: [
      // Its circuits are back half an hour before the night ends: by 04:30 where it ends at 05:00.
      { ...rule(at.u2), backBy: (dayMinute(window(0).closes.getTime(), zone) + 24 * 60 - 30) % (24 * 60) },
      // Prepared tonight, and covered again.
      { ...rule(at.u3), mayStayOpen: true },
      { ...rule(at.school), afterIds: [at.u3.id] },
      // The clinic’s fibers lie beside those of its window: the clinic agreed to the second night.
      { ...rule(at.m1), onlyNightId: nights[1]!.id },
    ],
  };
}
