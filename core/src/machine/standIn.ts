import type { Machine } from '../gear/gear';
import { draws } from './draws';
import type { Faults } from './faults';
import { cleave, fuse, seat, type Bench, type Cleave, type FiberPair, type LaidPair } from './joints';
import { cameraNoise } from './loss';
import type { StandInCommand } from './command';
import type { LogRow, MachineEvent, MachineState, MachineStatus, SeenFiber } from './link';
import { electrodeLife, mildWeather, newWear, type Wear, type Weather } from './wear';

/** How long each state takes, s, of one fiber and of a ribbon. Common practice; the calibration from memory. */
const seconds: Readonly<
  Record<Exclude<MachineState, 'ready' | 'pause' | 'done'>, readonly [one: number, ribbon: number]>
> = {
  'gap-set': [3, 5],
  arc: [2, 3],
  estimate: [1, 1.5],
  'proof-test': [1, 1],
  calibration: [12, 15],
};

/** Splices that its memory holds. */
const mostInLog = 10_000;
/** Events that who was away can still hear. */
const mostEvents = 2000;

export interface StandInOptions {
  readonly seed: number;
  readonly gear: Pick<Machine, 'programs' | 'heaterPrograms' | 'heaters' | 'calibrationArcs'>;
  readonly aligns: Bench['aligns'];
  readonly faults?: Faults;
  readonly wear?: Wear;
  readonly weather?: Weather;
  /** It waits for a key before each arc. */
  readonly pausesBeforeArc?: boolean;
}

interface Loaded {
  readonly splice: string;
  readonly fibers: readonly FiberPair[];
  laid: LaidPair[];
}

/** The command cannot be done now; the message is for the person. */
export class NotNow extends Error {}

/**
 * A splicing machine that is not there: it behaves like one, by the time that is handed in, and says that it is simulated. The same seed, commands and times give the same
 * events to the last digit.
 */
export class StandIn {
  private state: MachineState = 'ready';
  /** When the state ends by itself, ms. */
  private until = Infinity;
  private loaded: Loaded | null = null;
  private wear: Wear;
  private weather: Weather;
  private faults: Faults;
  private program: string | null;
  private heater: string | null;
  private readonly heating: { readonly program: string; readonly seconds: number; readonly until: number }[] =
    [];
  /** How often each end was cleaved, and each splice laid in and fused. */
  private readonly times = new Map<string, number>();
  private readonly rows: LogRow[] = [];
  private readonly happened: MachineEvent[] = [];
  private splices = 0;
  private number = 0;
  private calibrations = 0;
  /** The truth of the last splice, dB by fiber: for practice and tests, never shown at the bench. */
  lastTruth: readonly number[] = [];

  constructor(private readonly options: StandInOptions) {
    this.wear = options.wear ?? newWear;
    this.weather = options.weather ?? mildWeather;
    this.faults = options.faults ?? {};
    this.program = options.gear.programs[0]?.name ?? null;
    this.heater = options.gear.heaterPrograms[0]?.name ?? null;
  }

  status(): MachineStatus {
    const { state, program, heater, weather, number } = this;
    return {
      state,
      program,
      heater,
      arcs: this.wear.electrodeArcs,
      conditions: { ...weather },
      last: number,
    };
  }

  /** Its memory from a splice number on. */
  log(after: number): readonly LogRow[] {
    return this.rows.filter(({ splice }) => splice > after);
  }

  /** What happened after an event; null where it does not know that any more. */
  eventsAfter(after: number): readonly MachineEvent[] | null {
    const first = this.happened[0]?.number ?? this.number + 1;
    return after < first - 1 ? null : this.happened.filter(({ number }) => number > after);
  }

  setFaults(faults: Faults): void {
    this.faults = faults;
  }
  setWeather(weather: Weather): void {
    this.weather = weather;
  }

  /** When something happens by itself next, ms; Infinity where nothing does. */
  next(): number {
    return Math.min(this.until, ...this.heating.map(({ until }) => until));
  }

  /** Lets the time come to `now`, ms. Gives what happened meanwhile, each at its own time. */
  advance(now: number): readonly MachineEvent[] {
    const from = this.number;
    for (let at = this.next(); at <= now; at = this.next()) {
      const done = this.heating.findIndex(({ until }) => until <= at);
      if (done >= 0) {
        const [{ program, seconds: length }] = this.heating.splice(done, 1) as [
          (typeof this.heating)[number],
        ];
        this.tell(at, { kind: 'heater', did: 'ended', program, seconds: length });
      } else this.step(at);
    }
    return this.happened.filter(({ number }) => number > from);
  }

  /**
   * Does something at it at `now`, ms, after what happens until then. Gives all of it.
   * @throws NotNow where that cannot be done in its state; nothing changes then
   */
  command(command: StandInCommand, now: number): readonly MachineEvent[] {
    const from = this.number;
    this.advance(now);
    this.obey(command, now);
    return this.happened.filter(({ number }) => number > from);
  }

  private obey(command: StandInCommand, now: number): void {
    switch (command.do) {
      case 'load':
        if (this.state !== 'ready') throw new NotNow('Take out what lies in the machine first.');
        if (command.fibers.length < 1 || command.fibers.length > 24)
          throw new NotNow('It takes 1 to 24 fibers at a time.');
        if (this.options.aligns === 'cores' && command.fibers.length > 1)
          throw new NotNow('This machine takes one fiber at a time.');
        this.loaded = { splice: command.splice, fibers: command.fibers, laid: [] };
        this.lay('both');
        return this.go('gap-set', now);
      case 'recleave':
      case 'reseat':
        if (this.state !== 'pause') throw new NotNow('That is done before the arc.');
        this.lay(command.do === 'recleave' ? command.side : null);
        return this.go('gap-set', now);
      case 'fuse':
        if (this.state !== 'pause') throw new NotNow('It does not wait before an arc.');
        return this.go('arc', now);
      case 'take-out':
        if (this.state !== 'done' && this.state !== 'pause')
          throw new NotNow('Nothing can be taken out now.');
        this.loaded = null;
        return this.go('ready', now);
      case 'calibrate':
        if (this.state !== 'ready') throw new NotNow('Take out what lies in the machine first.');
        return this.go('calibration', now);
      case 'heat':
        return this.heat(now);
      case 'set': {
        const { programs, heaterPrograms } = this.options.gear;
        const { program = this.program, heater = this.heater } = command;
        if (!programs.some(({ name }) => name === program)) throw new NotNow('It has no such program.');
        if (!heaterPrograms.some(({ name }) => name === heater))
          throw new NotNow('It has no such heater program.');
        this.program = program;
        this.heater = heater;
        return this.tell(now, { kind: 'set', program, heater });
      }
      case 'replace-electrodes':
        this.wear = { ...this.wear, electrodeArcs: 0 };
        return;
      case 'next-blade-position':
        this.wear = { ...this.wear, bladeCleaves: 0 };
    }
  }

  private heat(now: number): void {
    const { heaterPrograms, heaters } = this.options.gear;
    if (this.heating.length >= heaters) throw new NotNow('The heater is in use.');
    const program = heaterPrograms.find(({ name }) => name === this.heater);
    if (!program) throw new NotNow('It has no heater program.');
    const { name, seconds: length } = program;
    this.heating.push({ program: name, seconds: length, until: now + length * 1000 });
    this.tell(now, { kind: 'heater', did: 'began', program: name, seconds: length });
  }

  private bench(): Bench {
    return { seed: this.options.seed, aligns: this.options.aligns, faults: this.faults };
  }

  private nth(key: string): number {
    const nth = (this.times.get(key) ?? 0) + 1;
    this.times.set(key, nth);
    return nth;
  }

  /** Lays the fibers in, with new cleaves on this side, both or none. */
  private lay(side: 'left' | 'right' | 'both' | null): void {
    const { loaded } = this;
    if (!loaded) return;
    const before = loaded.laid;
    const cut = (at: 'left' | 'right', index: number): Cleave => {
      const kept = before[index]?.cleaves[at];
      if (kept && side !== at && side !== 'both') return kept;
      const end = loaded.fibers[index]![at];
      this.wear = { ...this.wear, bladeCleaves: this.wear.bladeCleaves + 1 };
      return cleave(this.bench(), this.wear, at, end, this.nth(`cleave ${at} ${end.key}`));
    };
    const nth = this.nth(`seat ${loaded.splice}`);
    loaded.laid = loaded.fibers.map((pair, index) => ({
      pair,
      cleaves: { left: cut('left', index), right: cut('right', index) },
      seat: seat(this.bench(), loaded.splice, index + 1, pair, nth),
    }));
  }

  private go(state: MachineState, at: number): void {
    this.state = state;
    const takes = state === 'ready' || state === 'pause' || state === 'done' ? null : seconds[state];
    const ribbon = this.options.aligns === 'grooves' ? 1 : 0;
    this.until = takes ? at + takes[ribbon] * 1000 : Infinity;
    this.tell(at, { kind: 'state', state });
  }

  /** The state is over. */
  private step(at: number): void {
    switch (this.state) {
      case 'gap-set':
        this.tell(at, { kind: 'before', fibers: this.seen() });
        return this.go(this.options.pausesBeforeArc === false ? 'arc' : 'pause', at);
      case 'arc':
        return this.go('estimate', at);
      case 'estimate':
        return this.go('proof-test', at);
      case 'proof-test':
        this.tell(at, { kind: 'result', ...this.fused(at) });
        return this.go('done', at);
      case 'calibration':
        this.tell(at, { kind: 'calibration', ...this.calibrated() });
        return this.go('ready', at);
      default:
        this.until = Infinity;
    }
  }

  /** What the cameras show before the arc: angles to 0.1°, offset to 0.1 μm, gap to 1 μm. */
  private seen(): SeenFiber[] {
    const { splice, laid } = this.loaded!;
    const nth = this.times.get(`seat ${splice}`)!;
    return laid.map(({ cleaves, seat: { offsetX, offsetY, gap } }, index) => {
      const own = draws(this.options.seed, 'seen', splice, nth, index);
      const [x, y] = [offsetX + cameraNoise * own.normal(), offsetY + cameraNoise * own.normal()];
      return {
        cleaveLeft: tenths(cleaves.left.angle),
        cleaveRight: tenths(cleaves.right.angle),
        offset: tenths(Math.sqrt(x * x + y * y)),
        gap: Math.round(gap),
      };
    });
  }

  private fused(at: number): Omit<LogRow, 'at'> {
    const { splice, laid } = this.loaded!;
    const nth = this.nth(`arc ${splice}`);
    const fibers = fuse(this.bench(), this.wear, this.weather, splice, laid, nth);
    this.arcs(1);
    this.splices += 1;
    this.lastTruth = fibers.map(({ truth }) => truth);
    const seen = this.seen();
    const row: LogRow = {
      at: timeOf(at),
      splice: this.splices,
      // A number has no more digits than its display.
      fibers: fibers.map(({ estimate }, index) => ({ ...seen[index]!, loss: Math.min(99, estimate) })),
      proofTestFailed: fibers.some(({ broke }) => broke),
      program: this.program,
    };
    this.rows.push(row);
    if (this.rows.length > mostInLog) this.rows.shift();
    const { at: _, ...result } = row;
    return result;
  }

  private arcs(count: number): void {
    const { electrodeArcs, arcsSinceCalibration } = this.wear;
    this.wear = {
      ...this.wear,
      electrodeArcs: electrodeArcs + count,
      arcsSinceCalibration: arcsSinceCalibration + count,
    };
  }

  /** It fails more often the older the electrodes are, and where the ends are bad. Invented. */
  private calibrated(): {
    passed: boolean;
    conditions: { temperature: number; humidity: number; pressure: number };
  } {
    this.calibrations += 1;
    this.arcs(this.options.gear.calibrationArcs ?? 1);
    const own = draws(this.options.seed, 'calibration', this.calibrations);
    const age = (this.wear.electrodeArcs + (this.faults.oldElectrodes ?? 0)) / electrodeLife;
    const passed = !own.chance(Math.min(0.9, 0.02 + 0.6 * Math.max(0, age - 1) + (this.faults.dust ?? 0)));
    if (passed)
      this.wear = {
        ...this.wear,
        arcsSinceCalibration: 0,
        calibratedTo: 0.01 * own.normal(),
        calibratedAt: this.weather,
      };
    return { passed, conditions: { ...this.weather } };
  }

  private tell(at: number, event: Untold): void {
    this.number += 1;
    this.happened.push({ number: this.number, at: timeOf(at), ...event } as MachineEvent);
    if (this.happened.length > mostEvents) this.happened.shift();
  }
}

type Untold = MachineEvent extends infer E
  ? E extends MachineEvent
    ? Omit<E, 'number' | 'at'>
    : never
  : never;

const tenths = (value: number) => Math.round(value * 10) / 10;
const timeOf = (at: number) => new Date(at).toISOString();
