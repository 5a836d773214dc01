import { compareFacts, type Fact, type SignOff } from '@cordel/core';
import { Type } from '../../ui/Type';
import { dayAndTime, type ShownZone } from '../../ui/times';

export const decisionWords: Readonly<Record<SignOff['body']['decision'], string>> = {
  accepted: 'accepted',
  'accepted-with-remarks': 'accepted with remarks',
  'sent-back': 'sent back',
};

/** Who signed a closure's record last, and how much came after. Nothing where nobody did. */
export function SignedLine({ facts, zone }: { facts: readonly Fact[]; zone: ShownZone }) {
  const signed = facts.filter((fact): fact is SignOff => fact.kind === 'sign-off').sort(compareFacts);
  const last = signed.at(-1);
  if (!last) return null;
  const later = facts.filter((fact) => fact.kind !== 'sign-off' && compareFacts(last, fact) < 0).length;
  return (
    <Type look="small">
      {`${dayAndTime(last.madeAt, zone)}: ${decisionWords[last.body.decision]}, signed by ${last.body.name} (${last.body.role})`}
      {later > 0 ? ` · ${later} ${later === 1 ? 'record is' : 'records are'} later than that` : ''}
    </Type>
  );
}
