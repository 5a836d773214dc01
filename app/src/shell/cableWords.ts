import { fiberCount, fiberUnits, metalOf, type Construction } from '@cordel/core';

/** "96 fibers, 8 tubes, 2 fillers": what a cable is, in the trade's words. */
export function constructionWords(construction: Construction): string {
  const { armor, messenger } = metalOf(construction);
  return [glassWords(construction), armor ? 'armored' : null, messenger ? 'with messenger' : null]
    .filter(Boolean)
    .join(', ');
}

function glassWords(construction: Construction): string {
  const fibers = `${fiberCount(construction)} fibers`;
  const units = fiberUnits(construction).length;
  switch (construction.kind) {
    case 'stranded-tubes':
    case 'stranded-ribbon': {
      const fillers = construction.strands.filter((strand) => strand.kind === 'filler').length;
      const tubes = construction.strands.length - fillers;
      const groups = construction.strands.some((strand) => 'groupSize' in strand && strand.groupSize);
      return [
        fibers,
        plural(tubes, 'tube'),
        construction.kind === 'stranded-ribbon' ? plural(units, 'ribbon') : null,
        groups ? 'binder groups' : null,
        fillers > 0 ? plural(fillers, 'filler') : null,
      ]
        .filter(Boolean)
        .join(', ');
    }
    case 'central-ribbon':
      return `${fibers}, ${plural(units, 'ribbon')} of ${construction.fibersPerRibbon} in a central tube`;
    case 'drop':
      return `${fibers}, ${construction.shape} drop${construction.toningWire ? ' with toning wire' : ''}`;
    case 'pigtails':
      return `${fibers}, pigtails of ${construction.bufferMicrometers} μm`;
  }
}

function plural(count: number, what: string): string {
  return `${count} ${what}${count === 1 ? '' : 's'}`;
}
