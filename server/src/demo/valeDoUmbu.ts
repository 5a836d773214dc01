import {
  limitsPresets,
  planClosure,
  type Construction,
  type Fact,
  type Limits,
  type PlacedSplice,
  type ProjectDefinition,
  type StoredFact,
} from '@cordel/core';
import { seeded, type Seeded } from './seeded';

/** 22:00 to 05:00 in the district's night, in UTC. */
const opens = new Date('2026-04-15T01:00:00.000Z');
const closes = new Date('2026-04-15T08:00:00.000Z');

/** Eight tubes of twelve; the fillers stand at places 3 and 8 of the stranding, so place and tube number differ. */
const loose96: Construction = {
  kind: 'stranded-tubes',
  strands: [1, 2, 0, 3, 4, 5, 6, 0, 7, 8].map((tube) =>
    tube ? { kind: 'tube', fibers: 12 } : { kind: 'filler' },
  ),
};

/**
 * The invented scenario "Vale do Umbu ring, section 2": the route, and closure U2 in the middle of its splicing. Readings are made up by a
 * seeded function and marked simulated.
 */
export function valeDoUmbu(): { definition: ProjectDefinition; facts: StoredFact[] } {
  const random = seeded(20260415);
  const id = () => random.id(opens);
  const site = (
    name: string,
    kind: 'hub' | 'closure' | 'cabinet',
    chainage: number,
    placement: 'handhole' | 'aerial' | 'pole' | 'indoors',
  ) => ({ id: id(), name, kind, chainage, placement });

  const sites = [
    site('Moinho', 'hub', 0, 'indoors'),
    site('U1 Ponte Velha', 'closure', 1180, 'handhole'),
    site('U2 Curva do Rio', 'closure', 2960, 'aerial'),
    site('U3 Escola', 'closure', 4650, 'handhole'),
    site('U4 Mirante', 'closure', 6120, 'pole'),
    site('Ladeira', 'cabinet', 7400, 'handhole'),
  ] as const;
  const [moinho, u1, u2, u3, u4, ladeira] = sites;
  const toMoinho = {
    id: id(),
    label: 'A 96 Moinho',
    schemeId: 'tia-598-d',
    construction: loose96,
    siteIds: [moinho.id, u1.id, u2.id],
  };
  const toLadeira = {
    id: id(),
    label: 'B 96 Ladeira',
    schemeId: 'tia-598-d',
    construction: loose96,
    siteIds: [u2.id, u3.id, u4.id, ladeira.id],
  };
  const closure = {
    id: id(),
    siteId: u2.id,
    kind: 'inline' as const,
    entries: [
      { cableId: toMoinho.id, manner: 'cut' as const },
      { cableId: toLadeira.id, manner: 'cut' as const },
    ],
    trays: Array.from({ length: 4 }, () => ({ singleSlots: 24 })),
    order: [
      {
        id: id(),
        left: { cableId: toMoinho.id, side: 'end' as const, from: 1, to: 96 },
        right: { cableId: toLadeira.id, side: 'end' as const, from: 1, to: 96 },
        mode: 'single' as const,
        circuit: null,
      },
    ],
    version: 1,
  };
  const { limits } = limitsPresets.find((preset) => preset.id === 'feeder')!;
  const definition: ProjectDefinition = {
    project: {
      id: id(),
      name: 'Vale do Umbu ring, section 2',
      units: 'mm',
      limits,
      window: { opens: opens.toISOString(), closes: closes.toISOString() },
      version: 1,
    },
    sites: [...sites],
    cables: [toMoinho, toLadeira],
    closures: [closure],
  };
  const plan = planClosure(closure, new Map(definition.cables.map((cable) => [cable.id, cable])));
  const splices = plan.trays.flatMap((tray) => tray.splices).slice(0, splicedInDemo);
  return { definition, facts: simulatedNight(splices, closure.id, limits, random) };
}

const splicedInDemo = 53;

/** What goes wrong in the night, by tray and slot; everything else holds at the first try. */
const troubles: Readonly<Record<string, 'redone' | 'allowed' | 'recleaved' | 'broken' | 'redo' | 'owner'>> = {
  '1.8': 'redone',
  '1.15': 'allowed',
  '2.5': 'recleaved',
  '2.11': 'broken',
  '2.19': 'redo',
  '2.22': 'owner',
};

function simulatedNight(
  splices: readonly PlacedSplice[],
  closureId: string,
  limits: Limits,
  random: Seeded,
): StoredFact[] {
  const stored: StoredFact[] = [];
  let clock = opens.getTime() + 14 * 60_000;
  const by = () => (stored.length % 40 < 26 ? 'Iara' : 'Davi');
  const base = (splice: PlacedSplice) => {
    clock += Math.round((2.6 + 2 * random.next()) * 60) * 1000;
    const madeAt = new Date(clock);
    return {
      id: random.id(madeAt),
      closureId,
      spliceId: splice.id,
      madeAt: madeAt.toISOString(),
      by: by(),
    };
  };
  const keep = (fact: Fact) => {
    stored.push({ fact, receivedAt: new Date(Date.parse(fact.madeAt) + 1000).toISOString() });
    return fact.id;
  };
  const attempt = (
    splice: PlacedSplice,
    loss: number | null,
    more: { cleaveLeft?: number; note?: string } = {},
  ) =>
    keep({
      ...base(splice),
      kind: 'attempt',
      source: 'machine',
      simulated: true,
      readings: [
        {
          loss,
          cleaveLeft: more.cleaveLeft ?? angle(random),
          cleaveRight: angle(random),
        },
      ],
      proofTestFailed: loss === null,
      note: more.note ?? '',
    });
  const over = (by: number) => hundredths(limits.singleMax + by);

  for (const splice of splices) {
    switch (troubles[`${splice.tray}.${splice.slot}`]) {
      case 'redone':
        attempt(splice, over(0.04));
        attempt(splice, goodLoss(random));
        break;
      case 'allowed': {
        attempt(splice, over(0.03));
        attempt(splice, over(0.04));
        const last = attempt(splice, over(0.02));
        keep({
          ...base(splice),
          kind: 'owner-answer',
          attemptId: last,
          answer: 'allow',
          note: 'Spare fiber, budget has room.',
        });
        break;
      }
      case 'recleaved':
        attempt(splice, 0.06, { cleaveLeft: 1.7 });
        attempt(splice, goodLoss(random));
        break;
      case 'broken':
        attempt(splice, null, { note: 'Broke in the proof test.' });
        attempt(splice, goodLoss(random));
        break;
      case 'redo':
        attempt(splice, over(0.06));
        break;
      case 'owner':
        attempt(splice, over(0.05));
        attempt(splice, over(0.03));
        attempt(splice, over(0.03));
        break;
      case undefined:
        attempt(splice, goodLoss(random));
    }
  }
  return stored;
}

/** Mostly 0.01 to 0.04 dB, now and then up to 0.08 (common practice for a machine in good order). */
function goodLoss(random: Seeded): number {
  const skewed = random.next() ** 2.2;
  return hundredths(0.005 + 0.03 * random.next() + 0.03 * skewed);
}

function angle(random: Seeded): number {
  return Math.round((0.2 + 0.3 * random.next() + 0.3 * random.next()) * 10) / 10;
}

function hundredths(loss: number): number {
  return Math.round(loss * 100) / 100;
}
