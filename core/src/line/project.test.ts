import { id } from '../../test/example';
import {
  alongTheRoute,
  branchSites,
  cablesAlong,
  cordOrder,
  routeMeters,
  routeSites,
  siteOf,
  type Site,
} from './project';

const site = (number: number, chainage: number, branchFrom?: number): Site => ({
  id: id(number),
  name: `S${number}`,
  kind: 'closure',
  chainage,
  placement: null,
  ...(branchFrom ? { branchFrom: id(branchFrom) } : {}),
});
const sites = [site(3, 900), site(5, 300, 2), site(1, 0), site(4, 40, 2), site(2, 500)];
const names = (list: readonly Site[]) => list.map((one) => one.name);

test('the route goes by distance, a branch by its own, right after where it leaves', () => {
  expect(names(routeSites(sites))).toEqual(['S1', 'S2', 'S3']);
  expect(names(branchSites(sites, id(2)))).toEqual(['S4', 'S5']);
  expect(names(cordOrder(sites))).toEqual(['S1', 'S2', 'S4', 'S5', 'S3']);
});

test('from a branch both legs count', () => {
  const meters = (a: number, b: number) => routeMeters(sites, siteOf(sites, id(a)), siteOf(sites, id(b)));
  // S2 lies at 500 of the route, its branch has S4 at 40 and S5 at 300.
  expect([meters(1, 3), meters(2, 5), meters(5, 2), meters(4, 5)]).toEqual([900, 300, 300, 260]);
  // 300 back to S2 and 400 on to S3; 300 back and 500 back to S1.
  expect([meters(5, 3), meters(1, 5)]).toEqual([700, 800]);
  // Branches of two sites, and a branch of a branch.
  const more = [...sites, site(6, 70, 3), site(7, 10, 5)];
  const far = (a: number, b: number) => routeMeters(more, siteOf(more, id(a)), siteOf(more, id(b)));
  expect([far(5, 6), far(7, 6), far(7, 4)]).toEqual([300 + 400 + 70, 10 + 300 + 400 + 70, 10 + 260]);
});

test('what stands at sites is listed as the cord passes them', () =>
  expect(
    alongTheRoute(
      sites,
      sites.map((one) => ({ site: one })),
    ).map(({ site: { name } }) => name),
  ).toEqual(['S1', 'S2', 'S4', 'S5', 'S3']));

test('cables are listed as the cord meets them, those that run on first', () => {
  const cable = (label: string, ...at: number[]) => ({ label, siteIds: at.map(id) });
  const cables = [
    cable('drop', 5),
    cable('short', 1, 2),
    cable('b', 2, 3),
    cable('a', 2, 3),
    cable('long', 1, 3),
  ];
  expect(cablesAlong(sites, cables).map((one) => one.label)).toEqual(['long', 'short', 'a', 'b', 'drop']);
});

test('a site that is not there is a bug', () => expect(() => siteOf(sites, id(9))).toThrow(/Unknown site/));
