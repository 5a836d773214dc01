import { readingFindingWords } from '@cordel/core';
import { readReadingColumn } from '@cordel/core/readingColumn';
import { useState } from 'react';
import { Action } from '../../../../ui/Action';
import { TextBox } from '../../../../ui/Field';
import { Findings } from '../../../../ui/Findings';
import { Sheet } from '../../../../ui/Sheet';
import { Type } from '../../../../ui/Type';

/** The readings of a ribbon as a pasted column. What is wrong is told as a whole, and nothing of it is taken. */
export function PasteSheet({
  fibers,
  open,
  onClose,
  onLosses,
}: {
  fibers: number;
  open: boolean;
  onClose: () => void;
  onLosses: (losses: readonly number[]) => void;
}) {
  return (
    <Sheet title={`${fibers} losses as a column`} open={open} onClose={onClose}>
      {open ? <Paste fibers={fibers} onLosses={onLosses} /> : null}
    </Sheet>
  );
}

function Paste({ fibers, onLosses }: { fibers: number; onLosses: (losses: readonly number[]) => void }) {
  const [text, setText] = useState('');
  const { losses, findings } = readReadingColumn(text, fibers);
  return (
    <>
      <Type look="small" tone="soft">
        One loss for each fiber in the order of the left side, one a line, in dB.
      </Type>
      <TextBox label="Losses" multiline rows={8} keyboard="text" value={text} onChangeText={setText} />
      {text.trim() === '' ? null : <Findings findings={findings} words={readingFindingWords} />}
      <Action
        bench
        kind="now"
        label={losses.length > 0 ? `Record the ${losses.length} losses` : 'Record them'}
        disabled={losses.length === 0}
        onPress={() => onLosses(losses)}
      />
    </>
  );
}
