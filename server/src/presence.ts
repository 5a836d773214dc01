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

/** A device that was not heard of for so long is gone, ms; it says where it is every few seconds. */
const goneAfter = 15_000;
/** More devices than that are not a crew. */
const mostDevices = 50;

/**
 * Who stands at which splice just now, closure by closure. Kept in memory only: it means nothing a minute later.
 */
export class Presence {
  private readonly closures = new Map<string, Map<string, Seen>>();

  constructor(private readonly now: () => Date) {}

  /** Notes where a device stands, or that it left, and gives the others at this closure. */
  at(
    closureId: string,
    { device, by, spliceId }: { device: string; by: string | null; spliceId: string | null },
  ): Stander[] {
    const now = this.now();
    const here = this.closures.get(closureId) ?? new Map<string, Seen>();
    for (const [id, seen] of here) if (now.getTime() - seen.seenAt > goneAfter) here.delete(id);
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
    if (here.size > 0) this.closures.set(closureId, here);
    else this.closures.delete(closureId);
    return [...here.values()]
      .filter((seen) => seen.device !== device)
      .map(({ seenAt: _, ...stander }) => stander);
  }
}
