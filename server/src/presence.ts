import type { Database } from './database/database';

/** Somebody who stands at a splice. */
export interface Stander {
  /** The device, not the person: one person may have two. */
  readonly device: string;
  readonly by: string | null;
  readonly spliceId: string;
  /** UTC, when they came to this splice. */
  readonly since: string;
}

interface Seen extends Stander {
  readonly seenAt: number;
}

/** What servers tell each other. */
interface Told {
  readonly about: 'presence';
  readonly closureId: string;
  readonly device: string;
  readonly by: string | null;
  readonly spliceId: string | null;
}

/** A device that was not heard of for so long is gone, ms; it says where it is every few seconds. */
const goneAfter = 15_000;
/** More devices at one closure than that are not a crew, and more closures at once not a district. */
const mostDevices = 50;
const mostClosures = 2000;

/**
 * Who stands at which splice just now, closure by closure. Kept in memory only: it means nothing a minute later. Every server on the database hears of
 * everybody.
 */
export class Presence {
  private readonly closures = new Map<string, Map<string, Seen>>();
  private cleanedAt = 0;

  constructor(
    private readonly now: () => Date,
    private readonly database: Pick<Database, 'publish' | 'subscribe'>,
  ) {
    database.subscribe((message) => {
      const told = read(message);
      if (told) this.note(told);
    });
  }

  /** Notes where a device stands, or that it left, and gives the others at this closure, which the caller has made sure of. */
  async at(
    closureId: string,
    { device, by, spliceId }: { device: string; by: string | null; spliceId: string | null },
  ): Promise<Stander[]> {
    const told: Told = { about: 'presence', closureId, device, by, spliceId };
    this.note(told);
    await this.database.publish(JSON.stringify(told));
    const now = this.now().getTime();
    return [...(this.closures.get(closureId)?.values() ?? [])]
      .filter((seen) => seen.device !== device && now - seen.seenAt <= goneAfter)
      .map(({ seenAt: _, ...stander }) => stander);
  }

  /** How many devices are known of. */
  get size(): number {
    return [...this.closures.values()].reduce((sum, here) => sum + here.size, 0);
  }

  private note({ closureId, device, by, spliceId }: Told): void {
    const now = this.now();
    this.clean(now.getTime());
    const here = this.closures.get(closureId) ?? new Map<string, Seen>();
    const before = here.get(device);
    if (spliceId === null) here.delete(device);
    else if (before || here.size < mostDevices)
      here.set(device, {
        device,
        by,
        spliceId,
        since: before?.spliceId === spliceId ? before.since : now.toISOString(),
        seenAt: now.getTime(),
      });
    if (here.size === 0) this.closures.delete(closureId);
    else if (this.closures.has(closureId) || this.closures.size < mostClosures)
      this.closures.set(closureId, here);
  }

  /** Takes out everybody who is gone, also where nobody asks any more. */
  private clean(now: number): void {
    if (Math.abs(now - this.cleanedAt) < goneAfter) return;
    this.cleanedAt = now;
    for (const [closureId, here] of this.closures) {
      for (const [device, seen] of here) if (Math.abs(now - seen.seenAt) > goneAfter) here.delete(device);
      if (here.size === 0) this.closures.delete(closureId);
    }
  }
}

function read(message: string): Told | null {
  try {
    const told = JSON.parse(message) as Told;
    return told.about === 'presence' ? told : null;
  } catch {
    return null;
  }
}
