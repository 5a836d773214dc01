import { allowed, costOf, runFrom, runOn, type Problem } from './problem';

/**
 * What no plan can do better: jobs that fit nowhere even alone, and the nights that the others take at the least.
 *
 * Nights, by linear programming duality of bin packing (Gilmore and Gomory, "A linear programming approach to the cutting-stock problem", Operations Research 9, 1961): with any prices of
 * the jobs, a crew's night holds at most the dearest set that fits, so nights ≥ sum of prices ÷ sum over crews of that set's price. Which prices, only decides how good the bound
 * is: they are improved by subgradient steps. What fits is loosened so that it never leaves out what does: see `rooms`. Ribbons count only at crews that can make them.
 */
export interface Bound {
  /** Jobs that no plan has a place for, at the least. */
  readonly left: number;
  /** Nights that the others take at least. */
  readonly nights: number;
  /** By crew as it is equipped: what one of its nights is worth where nights are scarce, in jobs. null: they are not, or that was not asked. */
  readonly worth: readonly number[] | null;
}

/**
 * @param leaves jobs that a plan leaves. Where that are more than have no place even alone, it is looked into how many every plan has to leave; else that is not asked.
 */
export function lowerBound(problem: Problem, leaves = problem.jobs.length): Bound {
  const alone = boundAlone(problem);
  return leaves > alone.left ? boundTogether(problem, alone, leaves) : alone;
}

/** As if the nights held all that has a place alone. */
function boundAlone(problem: Problem): Bound {
  const { jobs, crews, nights } = problem;
  const rooms = crews.map((_, crew) => roomOf(problem, crew));
  const nowhere = placeless(problem);
  /** By job that has a place: what it takes of the roomiest night of each crew, minutes; Infinity where it has none. */
  const sizes: number[][] = [];
  const forced = new Set<number>();
  for (const [job, { pin, onlyNight }] of jobs.entries()) {
    if (nowhere.has(job)) continue;
    const night = pin?.night ?? onlyNight;
    if (night !== null) forced.add(night);
    sizes.push(
      crews.map((_, crew) => {
        if (!nights.some((__, at) => allowed(problem, job, crew, at))) return Infinity;
        const size = Math.floor(sizeOf(problem, job, crew, rooms[crew]!) / 60);
        // A pinned one may be more than a night holds; it takes it whole.
        return size > rooms[crew]!.minutes ? (pin ? rooms[crew]!.minutes : Infinity) : size;
      }),
    );
  }
  const chain = longestChain(problem, nowhere, rooms);
  const packed = packingBound(problem, sizes, rooms);
  const least = Math.max(forced.size, chain, packed, Math.min(1, sizes.length));
  return { left: nowhere.size, nights: Math.min(least, nights.length), worth: null };
}

/** As many as the nights hold, of those that have a place alone. */
function boundTogether(problem: Problem, alone: Bound, leaves: number): Bound {
  const { jobs, nights } = problem;
  const nowhere = placeless(problem);
  // Pinned ones are there in any case, and may be more than fits: they take no room.
  const free = [...jobs.keys()].filter((job) => !nowhere.has(job) && !jobs[job]!.pin);
  const { kinds, kindsOf, inOneNight } = kindsOfNights(problem, free);
  // Of the free ones, how many the plan does that there is.
  const there = Math.max(0, free.length - Math.max(0, leaves - nowhere.size));
  const { most, worths } = mostHeld(kinds, free.length, there);
  const left = nowhere.size + free.length - most;
  const worth = kindsOf.map((own) => Math.max(0, ...[...own].map((kind) => worths[kind]!)));
  if (left <= alone.left) return { ...alone, worth };
  // What has to be left may be what made the nights many.
  const pinned = new Set(jobs.flatMap(({ pin }, job) => (pin && !nowhere.has(job) ? pin.night : [])));
  const fewest = inOneNight > 0 ? Math.ceil(most / inOneNight) : 0;
  return { left, nights: Math.max(pinned.size, Math.min(fewest, nights.length)), worth };
}

/** Crews' nights that are alike. */
interface NightKind {
  /** Of each job, minutes; Infinity where it cannot be. */
  readonly sizes: readonly number[];
  readonly minutes: number;
  times: number;
}

/** Nights of all crews by their kind; of each equipped crew its kinds; and the most jobs that one night of all crews holds. */
function kindsOfNights(problem: Problem, free: readonly number[]) {
  const { crews, nights } = problem;
  const kinds: NightKind[] = [];
  const known = new Map<string, number>();
  const kindsOf = crews.map(() => new Set<number>());
  let inOneNight = 0;
  for (const crew of new Set(crews.map((one) => one.crew))) {
    let mostOfCrew = 0;
    for (const [night, window] of nights.entries()) {
      const own = crews.flatMap((one, index) => (one.crew === crew && one.works[night] ? [index] : []));
      if (own.length === 0) continue;
      const rooms = own.map((index) => roomOf(problem, index, window));
      const sizes = free.map((job) =>
        Math.min(
          ...own.map((index, at) =>
            allowed(problem, job, index, night)
              ? Math.floor(sizeOf(problem, job, index, rooms[at]!) / 60)
              : Infinity,
          ),
        ),
      );
      const minutes = Math.max(...rooms.map((room) => room.minutes));
      const key = `${minutes} ${sizes.join()}`;
      const kind = known.get(key) ?? kinds.push({ sizes, minutes, times: 0 }) - 1;
      known.set(key, kind);
      kinds[kind]!.times += 1;
      for (const index of own) kindsOf[index]!.add(kind);
      mostOfCrew = Math.max(mostOfCrew, mostThatFit(sizes, minutes));
    }
    inOneNight += mostOfCrew;
  }
  return { kinds, kindsOf, inOneNight };
}

/**
 * How many jobs nights hold at the most, by the same duality (Lagrangian relaxation of "each job once"; Fisher, "The Lagrangian relaxation method for solving integer programming problems",
 * Management Science 27, 1981): with any prices ≥ 0, no plan does more jobs than Σ prices + Σ over crews' nights of the most that a set that fits is worth at 1 − price each.
 * @param there how many a plan does
 * @returns also what a night of each kind is worth at those prices, in jobs
 */
function mostHeld(kinds: readonly NightKind[], jobs: number, there: number) {
  const prices = Array.from({ length: jobs }, () => 0);
  let worths = kinds.map(() => 0);
  let [least, theta, since] = [Infinity, 1, 0];
  for (let step = 0; step < steps; step += 1) {
    const held = new Float64Array(jobs);
    const values = prices.map((price) => Math.max(0, 1 - price));
    const own = kinds.map(({ sizes, minutes, times }) => {
      const { price, set } = dearestSet(values, sizes, minutes);
      for (const job of set) held[job]! += times;
      return price;
    });
    const worth = kinds.reduce(
      (sum, { times }, kind) => sum + own[kind]! * times,
      prices.reduce((sum, price) => sum + price, 0),
    );
    if (worth < least - 1e-9) [least, worths, since] = [worth, own, 0];
    else if ((since += 1) >= 12) [theta, since] = [theta / 2, 0];
    const slope = held.reduce((sum, times) => sum + (times - 1) ** 2, 0);
    if (slope === 0 || theta < 1e-3 || Math.floor(least + 1e-9) <= there) break;
    // Towards what a plan reaches (Polyak 1969).
    const length = (theta * (worth - there)) / slope;
    for (let job = 0; job < jobs; job += 1)
      prices[job] = Math.max(0, prices[job]! + length * (held[job]! - 1));
  }
  return { most: Math.min(jobs, Math.floor(least + 1e-9)), worths };
}

/** The shortest ones, one after the other. */
function mostThatFit(sizes: readonly number[], minutes: number): number {
  let [count, sum] = [0, 0];
  for (const size of [...sizes].sort((a, b) => a - b)) {
    sum += size;
    if (sum > minutes) break;
    count += 1;
  }
  return count;
}

/** Jobs that fit nowhere even alone, and those that wait for one of them. */
export function placeless(problem: Problem): ReadonlySet<number> {
  const { jobs, crews, nights } = problem;
  const nowhere = new Set<number>();
  for (const job of jobs.keys())
    if (!nights.some((_, night) => crews.some((__, crew) => fitsAlone(problem, job, crew, night))))
      nowhere.add(job);
  for (let before = -1; before < nowhere.size;) {
    before = nowhere.size;
    for (const [job, { after }] of jobs.entries())
      if (after.some((one) => nowhere.has(one))) nowhere.add(job);
  }
  return nowhere;
}

/** Whether a crew could do it if it did nothing else that night; a part as if it went on from the one before it. */
function fitsAlone(problem: Problem, job: number, crew: number, night: number): boolean {
  if (!allowed(problem, job, crew, night)) return false;
  const { follows, pin } = problem.jobs[job]!;
  if (pin) return true;
  const from = runFrom(problem, crew, night);
  const run = runOn(problem, follows === null ? from : { ...from, last: follows }, crew, night, job);
  return costOf(problem, run, crew, night).fits;
}

/** What a crew's night holds: sets of jobs with Σ mean + weight · Σ variance ≤ 60 · minutes; every set that fits is one of them. */
export interface Room {
  readonly minutes: number;
  readonly weight: number;
}

/**
 * The most mean work that ends in the window with the reserve falls with its variance, and ever more slowly (it goes with the root). So it lies below the straight line between its values
 * at the least and at the most variance that a night can have.
 * @param window s; the crew's longest night where it is not given
 */
export function roomOf(
  { crews, nights, chances, reserve, jobs, packUp }: Problem,
  crew: number,
  window = Math.max(0, ...nights.filter((_, night) => crews[crew]!.works[night])),
): Room {
  const { calibration } = crews[crew]!;
  const fixed = Math.min(...calibration);
  const parts = jobs.flatMap((job) => [job.works[crew] ?? [], job.setUps[crew]!].flat());
  const ratios = [...parts, packUp]
    .filter(({ mean }) => mean > 0)
    .map(({ mean, variance }) => variance / mean);
  if (ratios.length === 0) return { minutes: 0, weight: 0 };
  const most = (variance: (mean: number) => number) => {
    let low = 0;
    let high = window * 2;
    while (high - low > 1) {
      const mean = (low + high) / 2;
      const stretch = { fixed, mean, variance: variance(mean) };
      if (chances.within(window, stretch) >= reserve) low = mean;
      else high = mean;
    }
    return high;
  };
  const least = Math.min(...ratios);
  const lowest = Math.min(...jobs.flatMap((job) => job.works[crew]?.variance ?? []));
  const roomiest = most((mean) => mean * least);
  const highest = Math.max(...ratios) * roomiest;
  const [top, bottom] = [most(() => lowest), most(() => highest)];
  if (!(highest > lowest) || bottom <= 0) return { minutes: Math.ceil(roomiest / 60), weight: 0 };
  const weight = (top - bottom) / (highest - lowest);
  return { minutes: Math.ceil((top + weight * lowest) / 60), weight };
}

/** What a job takes of a night at the least, s: without the way there, and without setting up where it may follow its part before. */
export function sizeOf({ jobs, packUp }: Problem, job: number, crew: number, { weight }: Room): number {
  const { works, setUps, follows } = jobs[job]!;
  const parts = follows === null ? [works[crew]!, setUps[crew]!, packUp] : [works[crew]!];
  return parts.reduce((sum, { mean, variance }) => sum + mean + weight * variance, 0);
}

/** Nights that jobs take of which one waits for the other, where no crew can have both in one night. */
function longestChain(problem: Problem, nowhere: ReadonlySet<number>, rooms: readonly Room[]): number {
  const { jobs, crews } = problem;
  const known = new Map<number, number>();
  const upTo = (job: number): number => {
    const before = known.get(job);
    if (before !== undefined) return before;
    // One that waits for itself, round some corner, is told elsewhere.
    known.set(job, 1);
    let longest = 1;
    for (const one of jobs[job]!.after) {
      if (nowhere.has(one)) continue;
      const together = crews.some(
        (_, crew) =>
          (jobs[one]!.pin && jobs[job]!.pin) ||
          (jobs[one]!.works[crew] &&
            jobs[job]!.works[crew] &&
            sizeOf(problem, one, crew, rooms[crew]!) + sizeOf(problem, job, crew, rooms[crew]!) <=
              60 * rooms[crew]!.minutes),
      );
      longest = Math.max(longest, upTo(one) + (together ? 0 : 1));
    }
    known.set(job, longest);
    return longest;
  };
  return Math.max(0, ...[...jobs.keys()].filter((job) => !nowhere.has(job)).map(upTo));
}

/** Subgradient steps. */
const steps = 300;

/** Nights that it takes to hold all jobs, by prices. */
function packingBound(
  { crews }: Problem,
  sizes: readonly (readonly number[])[],
  rooms: readonly Room[],
): number {
  if (sizes.length === 0) return 0;
  // Ways in which crews are equipped; a crew may have any of its own, and crews that are alike are asked once.
  const alike = new Map<string, { rows: number[]; minutes: number; times: number }>();
  for (const crew of new Set(crews.map((one) => one.crew))) {
    const own = crews.flatMap((one, index) => (one.crew === crew ? [index] : []));
    // In the roomiest of its ways: the least size, the most room.
    const minutes = Math.max(...own.map((index) => rooms[index]!.minutes));
    const rows = sizes.map((row) => Math.min(...own.map((index) => row[index]!)));
    const key = `${minutes} ${rows.join()}`;
    const there = alike.get(key);
    if (there) there.times += 1;
    else alike.set(key, { rows, minutes, times: 1 });
  }
  const kinds = [...alike.values()];
  const prices = sizes.map((_, job) =>
    Math.min(...kinds.map(({ rows, minutes }) => rows[job]! / Math.max(1, minutes))),
  );
  let best = 0;
  for (let step = 0; step < steps; step += 1) {
    const held = new Float64Array(sizes.length);
    let dearest = 0;
    for (const { rows, minutes, times } of kinds) {
      const { price, set } = dearestSet(prices, rows, minutes);
      dearest += price * times;
      for (const job of set) held[job]! += times;
    }
    if (dearest <= 0) return best;
    const nights = prices.reduce((sum, one) => sum + one, 0) / dearest;
    best = Math.max(best, Math.ceil(nights - 1e-9));
    const length = 0.25 / (1 + step / 40);
    // What the dearest sets hold more than once in all nights is too dear; what they leave is too cheap.
    for (let job = 0; job < prices.length; job += 1)
      prices[job] = prices[job]! * (1 + length * Math.max(-0.9, 1 - nights * held[job]!) * 0.2);
  }
  return best;
}

/** The dearest set of jobs whose sizes fit, whole minutes (dynamic programming over the minutes). */
function dearestSet(
  prices: readonly number[],
  sizes: readonly number[],
  minutes: number,
): { readonly price: number; readonly set: readonly number[] } {
  const value = new Float64Array(minutes + 1);
  const taken = prices.map((price, job) => {
    const size = sizes[job]!;
    const row = new Uint8Array(minutes + 1);
    if (size > minutes) return row;
    for (let at = minutes; at >= size; at -= 1) {
      const other = value[at - size]! + price;
      if (other > value[at]!) {
        value[at] = other;
        row[at] = 1;
      }
    }
    return row;
  });
  const set: number[] = [];
  let at = minutes;
  for (let job = prices.length - 1; job >= 0; job -= 1)
    if (taken[job]![at]) {
      set.push(job);
      at -= sizes[job]!;
    }
  return { price: value[minutes]!, set };
}
