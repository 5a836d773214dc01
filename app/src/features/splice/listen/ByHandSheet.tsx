import { formatLoss, lossRefusal, type SpliceState } from '@cordel/core';
import { useState } from 'react';
import { Action } from '../../../ui/Action';
import { FullPad, HundredthsPad } from '../../../ui/Pad';
import { Sheet } from '../../../ui/Sheet';
import { Type } from '../../../ui/Type';
import { useLatest } from '../../../ui/useLatest';
import type { Bench } from '../bench/types';

/** A reading by hand while the machine is listened to: its own for the same splice is asked about then, not taken. */
export function ByHandSheet({
  bench,
  here,
  onClose,
}: {
  bench: Bench;
  here: SpliceState;
  onClose: () => void;
}) {
  const [full, setFull] = useState(false);
  const onReading = useLatest((loss: number) => {
    setFull(false);
    const whole = bench.read.length + 1 === bench.fibers;
    bench.record(loss);
    if (whole) onClose();
  });
  const { splice } = here;
  return (
    <Sheet title={`By hand: tray ${splice.tray}, slot ${splice.slot}`} open onClose={onClose}>
      {bench.fibers > 1 ? (
        <Type look="strong">
          Fiber {bench.read.length + 1} of {bench.fibers}
          {bench.read.length > 0 ? `, so far ${bench.read.map(formatLoss).join(' · ')}` : ''}
        </Type>
      ) : null}
      {full ? (
        <FullPad refusal={lossRefusal} onReading={onReading} onClose={() => setFull(false)} />
      ) : (
        <>
          <HundredthsPad onReading={onReading} keyHints={false} />
          <Action bench label=".10 +" spoken="0.10 dB or more" onPress={() => setFull(true)} />
        </>
      )}
      <Action
        bench
        label="It broke in the proof test"
        onPress={() => {
          bench.record(null);
          onClose();
        }}
      />
    </Sheet>
  );
}
