import { shownNumber } from '@cordel/core';
import { grouped } from '@cordel/core/gear';
import { useRoom } from '../../data/room';
import { Type } from '../../ui/Type';

/** What Cordel takes on this device, how much it may take, and whether the browser may clear it. */
export function RoomWords() {
  const room = useRoom();
  if (!room) return null;
  return (
    <Type look="small" tone="soft">
      Kept on this device: {megabytes(room.usage)} of {megabytes(room.quota)} that the browser allows.{' '}
      {room.persisted
        ? 'It promised not to clear them.'
        : 'It may clear them when the device gets full; taking a project along asks it not to.'}
    </Type>
  );
}

const megabytes = (bytes: number) =>
  bytes < 1e8 ? `${shownNumber((bytes / 1e6).toFixed(1))} MB` : `${grouped(Math.round(bytes / 1e6))} MB`;
