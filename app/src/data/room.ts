import { useEffect, useState } from 'react';

/** From here on somebody is told: a night of splices takes about one. bytes */
const scarce = 20_000_000;
const everySoOften = 60_000;

/** What Cordel takes on this device, and what the browser says of it. */
export interface Room {
  /** bytes */
  readonly usage: number;
  /** bytes that it may take in all. */
  readonly quota: number;
  /** The browser promised not to clear it by itself. */
  readonly persisted: boolean;
}

/** null where the browser does not say. */
export function useRoom(): Room | null {
  const [room, setRoom] = useState<Room | null>(null);
  useEffect(() => {
    let gone = false;
    const look = async () => {
      const { storage } = navigator;
      const [estimate, persisted] = await Promise.all([
        storage?.estimate?.().catch(() => null),
        storage?.persisted?.().catch(() => false),
      ]);
      const { quota, usage } = estimate ?? {};
      const known = quota !== undefined && usage !== undefined;
      if (!gone) setRoom(known ? { usage, quota, persisted: persisted ?? false } : null);
    };
    void look();
    const timer = setInterval(() => void look(), everySoOften);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, []);
  return room;
}

/** How many bytes the browser still has for Cordel on this device where that is little; null where it is enough, or not known. */
export function useLittleRoom(): number | null {
  const room = useRoom();
  const left = room && Math.max(0, room.quota - room.usage);
  return left !== null && left < scarce ? left : null;
}
