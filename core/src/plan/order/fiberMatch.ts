import type { Cable } from '../../line/cable';
import { fiberOf } from '../../line/fiberType';
import { mismatchLoss } from '../../splice/record/spliceLoss';
import { oneWayStep } from '../../trace/otdrStep';
import type { Say } from '../../finding';
import type { PlanFinding } from '../words';

/** Says what to expect where two cables' fibers differ; nothing when they match. */
export function compareFibers(left: Cable, right: Cable, say: Say<PlanFinding>): void {
  const [a, b] = [fiberOf(left), fiberOf(right)];
  if (a.type.mode !== b.type.mode) {
    say('fiber-modes-differ', {
      left: { label: left.label, type: a.type.name },
      right: { label: right.label, type: b.type.name },
    });
    return;
  }
  if (a.type.core !== b.type.core) {
    say('fiber-cores-differ', {
      left: { label: left.label, core: a.type.core },
      right: { label: right.label, core: b.type.core },
    });
    return;
  }
  if (a.modeField === null || b.modeField === null || a.modeField === b.modeField) return;
  const loss = mismatchLoss(a.modeField, b.modeField);
  const step = oneWayStep(a.modeField, b.modeField);
  say(
    'mode-fields-differ',
    {
      left: { label: left.label, modeField: a.modeField },
      right: { label: right.label, modeField: b.modeField },
      loss,
      fromLeft: loss + step,
      fromRight: loss - step,
    },
    'warning',
  );
}
