import { cableOf, joint } from '../../../test/joint';
import { equalTubes, planFindingWords, type Cable, type Construction, type Entry } from '../../index';
import { cutSheet, prepareFindingWords, sealPlan } from '../../prepare';
import { builtInModels } from './builtInModels';

const loose = equalTubes(4, 12);
const ribbon: Construction = { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 12 };
const ribbonTubes: Construction = {
  kind: 'stranded-ribbon',
  strands: Array.from({ length: 2 }, () => ({
    kind: 'tube' as const,
    ribbons: 2,
    fibersPerRibbon: 12 as const,
  })),
};
const grouped: Construction = {
  kind: 'stranded-tubes',
  strands: Array.from({ length: 2 }, () => ({ kind: 'tube' as const, fibers: 24, groupSize: 12 })),
};
const drop = (fibers: number): Construction => ({
  kind: 'drop',
  shape: 'flat',
  fibers,
  toningWire: true,
  messenger: false,
});
const constructions = { loose, grouped, ribbon, ribbonTubes, drop: drop(4) };

/** Every built-in model through every entry it claims: ports that take a cable that goes through claim express and window. */
const jobs = builtInModels.flatMap((model) =>
  Object.entries(constructions).flatMap(([name, construction]) => {
    const express = model.ports.some((port) => port.express);
    const manners: Entry['manner'][] = [
      ...(construction.kind === 'drop' ? (['drop'] as const) : (['cut', 'branch'] as const)),
      ...(express && construction.kind !== 'drop' ? (['express', 'window'] as const) : []),
    ];
    return manners.map((manner) => ({ model, name, construction, manner }));
  }),
);

test.each(jobs.map((job) => [job.model.name, job.name, job.manner, job] as const))(
  '%s takes %s as %s without an error',
  (_, name, manner, { model, construction }) => {
    if (model.kind === 'drop' && construction.kind !== 'drop') return;
    const through = manner === 'express' || manner === 'window';
    const ports = model.ports.filter((port) => port.express || !through);
    // In the middle of the range of its widest port, so that any seal does.
    const port = ports.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
    const diameter = (port.from + port.to) / 2;
    const cable: Cable = cableOf(1, construction, { through, diameter });
    const small: Cable = cableOf(2, construction.kind === 'drop' ? construction : loose, {
      diameter: Math.min(...model.ports.map((one) => one.to)),
    });
    const signs = through ? ['-', '+'] : [''];
    // Ribbons are spliced as ribbons; where the cable goes through, from both sides.
    const fibers = construction.kind === 'drop' ? 2 : name === 'grouped' ? 4 : 6;
    const order = signs
      .map(
        (sign, index) =>
          `A${sign} ${index * 2 + 1}-${index * 2 + 2} > B ${index * fibers + 1}-${index * fibers + 2}`,
      )
      .join('\n');
    const { closure, cables, plan } = joint(
      model.name,
      [
        [cable, manner],
        [small, construction.kind === 'drop' ? 'drop' : 'branch'],
      ],
      order,
    );
    const errors = [
      ...plan.findings
        .filter(({ severity }) => severity === 'error')
        .map((one) => planFindingWords(one, 'mm')),
      ...[cable, small].flatMap((one) =>
        cutSheet(closure, plan, one, { units: 'mm' })
          .findings.filter(({ severity }) => severity === 'error')
          .map((finding) => `${one.label}: ${prepareFindingWords(finding, 'mm')}`),
      ),
      ...sealPlan(closure, cables, new Map()).cables.flatMap(({ findings }) =>
        findings.filter(({ severity }) => severity === 'error').map((one) => prepareFindingWords(one, 'mm')),
      ),
    ];
    expect(errors).toEqual([]);
  },
);
