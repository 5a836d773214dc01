import { id } from '../../test/example';
import { branchSites, cablesAlong, cordOrder, routeSites, siteOf, type Site } from './project';

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
