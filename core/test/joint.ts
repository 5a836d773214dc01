import { closureOfModel, planClosure, type Cable, type Closure, type Entry } from '../src';
import { readOrder } from '../src/plan/order/orderEntrance';
import { builtInModels } from '../src/plan/models/builtInModels';
import { id } from './example';

/** A closure of a built-in model at site 12 with these cables (site 11 is before it, 13 behind it), and its plan. */
export function joint(
  model: string,
  entries: readonly (readonly [cable: Cable, manner: Entry['manner']])[],
  order: string,
  more: Partial<Closure> = {},
) {
  const own = entries.map(([{ id: cableId }, manner]): Entry => ({ cableId, manner }));
  const closure: Closure = {
    id: id(21),
    siteId: id(12),
    ...closureOfModel(builtInModels.find((one) => one.name === model)!),
    entries: own,
    order: readOrder(order, own).lines.map((line, index) => ({ id: id(300 + index), ...line })),
    version: 1,
    ...more,
  };
  const cables = new Map(entries.map(([cable]) => [cable.id, cable]));
  return { closure, cables, plan: planClosure(closure, cables) };
}

export function cableOf(
  number: number,
  construction: Cable['construction'],
  more: Partial<Cable> & { through?: boolean } = {},
): Cable {
  const { through = false, ...rest } = more;
  return {
    id: id(100 + number),
    label: `Cable ${number}`,
    schemeId: 'tia-598-d',
    construction,
    siteIds: through ? [id(11), id(12), id(13)] : [id(11), id(12)],
    ...rest,
  };
}
