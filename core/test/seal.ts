import type { Fact, FlashTest, HoldingTest, SealCheck, SealName, SealPoint } from '../src';
import type { Reopening } from '../src/facts';
import { sealPoints, sealStage, type SealedThing } from '../src/seal';
import { sealState } from '../src';
import { id, timeOf } from './example';

/** Facts of sealing, each a minute after the one before unless a minute is given. */
export function sealFacts(closureId = id(21)) {
  let made = 5000;
  let minute = 0;
  const start = <K extends string>(kind: K, at?: number) => {
    made += 1;
    minute = at ?? minute + 1;
    return {
      v: 2,
      id: id(made),
      kind,
      madeAt: timeOf(minute),
      by: null,
      device: null,
      subject: { on: 'closure' as const, closureId },
    };
  };
  return {
    check: (
      point: SealPoint,
      answer: SealCheck['body']['answer'] = 'yes',
      note = '',
      at?: number,
    ): SealCheck => ({
      ...start('seal-check', at),
      body: { point, answer, note },
    }),
    flash: (body: FlashTest['body'], at?: number): FlashTest => ({ ...start('flash-test', at), body }),
    hold: (body: HoldingTest['body'], at?: number): HoldingTest => ({ ...start('holding-test', at), body }),
    reopen: (reason: Reopening['body']['reason'] = 'more-work', note = '', at?: number): Reopening => ({
      ...start('reopening', at),
      body: { reason, note },
    }),
    pump: (kPa = 34.5, at?: number): FlashTest => ({
      ...start('flash-test', at),
      body: { did: 'pumped', kPa, soap: 'after' },
    }),
    look: (seal: SealName, saw: 'none' | 'bubbles' | 'open' = 'none', at?: number): FlashTest => ({
      ...start('flash-test', at),
      body: { did: 'looked', seal, saw },
    }),
    release: (capBack = true, at?: number): FlashTest => ({
      ...start('flash-test', at),
      body: { did: 'released', capBack },
    }),
  };
}

/** Every point answered with yes, in its order, and one flash test without a bubble where one is made: what seals a closure. */
export function sealedFacts(thing: SealedThing, make = sealFacts(thing.closure.id)): Fact[] {
  const points = sealPoints(thing, sealState([]));
  const stage = sealStage({ ...thing, facts: [] });
  const answers = (chapters: readonly string[]) =>
    points.filter(({ chapter }) => chapters.includes(chapter)).map(({ point }) => make.check(point));
  const before = answers(['look', 'tighten', 'close']);
  const { testPressure, seals } = stage;
  const test = testPressure
    ? [make.pump(testPressure), ...seals.map((seal) => make.look(seal)), make.release()]
    : [];
  return [...before, ...test, ...answers(['after'])];
}
