import type { Finding } from '../finding';
import type { Cable } from '../line/cable';
import { fiberOf } from '../line/fiberType';
import { formatMean } from '../splice/reading';
import { mismatchLoss } from '../splice/spliceLoss';
import { oneWayStep } from '../trace/otdrStep';

/** What to expect where two cables' fibers differ; `where` is for the caller to say. Empty when they match. */
export function fiberMatchFindings(left: Cable, right: Cable): Omit<Finding, 'where'>[] {
  const [a, b] = [fiberOf(left), fiberOf(right)];
  if (a.type.mode !== b.type.mode)
    return [
      {
        code: 'fiber-modes-differ',
        severity: 'error',
        message: `${left.label} is ${a.type.name} and ${right.label} ${b.type.name}: single-mode and multimode fiber cannot be joined. Check the cables.`,
      },
    ];
  if (a.type.core !== b.type.core)
    return [
      {
        code: 'fiber-cores-differ',
        severity: 'error',
        message: `${left.label} has a core of ${a.type.core} μm and ${right.label} of ${b.type.core} μm. Check the cables.`,
      },
    ];
  if (a.modeField === null || b.modeField === null || a.modeField === b.modeField) return [];
  const loss = mismatchLoss(a.modeField, b.modeField);
  const step = oneWayStep(a.modeField, b.modeField);
  const forward = loss + step;
  const backward = loss - step;
  return [
    {
      code: 'mode-fields-differ',
      severity: 'warning',
      message: `${left.label} has a mode field of ${a.modeField} μm and ${right.label} of ${b.modeField} μm. A perfect splice still loses ${formatMean(loss)} dB, and a redo will not help. An OTDR reads ${signed(forward)} dB from ${left.label} and ${signed(backward)} dB from ${right.label}; the average is the loss.`,
    },
  ];
}

function signed(loss: number): string {
  return `${loss < 0 ? '−' : '+'}${formatMean(Math.abs(loss))}`;
}
