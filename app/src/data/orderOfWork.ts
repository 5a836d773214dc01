import './withoutEval';
import { byTray, type WorkOrder } from '@cordel/core';
import { useSyncExternalStore } from 'react';
import { z } from 'zod';
import { keep, recall } from './stored';

const orderSchema = z.union([
  z.object({ by: z.enum(['tray', 'tube', 'redo']) }),
  z.object({ by: z.literal('circuit'), circuit: z.string() }),
]);

const listeners = new Set<() => void>();
const known = new Map<string, WorkOrder>();
const keyOf = (closureId: string) => `order.${closureId}`;

function orderOf(closureId: string): WorkOrder {
  let order = known.get(closureId);
  if (!order) {
    order = orderSchema.catch(byTray).parse(recall(keyOf(closureId)) ?? byTray);
    known.set(closureId, order);
  }
  return order;
}

/** In which order a closure is worked through on this device. */
export function setOrderOfWork(closureId: string, order: WorkOrder): void {
  known.set(closureId, order);
  keep(keyOf(closureId), order);
  listeners.forEach((listener) => listener());
}

export function useOrderOfWork(closureId: string): WorkOrder {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => orderOf(closureId),
  );
}
