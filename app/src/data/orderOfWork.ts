import './withoutEval';
import { byTray, type WorkOrder } from '@cordel/core';
import { z } from 'zod';
import { storedValues } from './stored';

const orderSchema = z.union([
  z.object({ by: z.enum(['tray', 'tube', 'redo']) }),
  z.object({ by: z.literal('circuit'), circuit: z.string() }),
]);

/** In which order a closure is worked through on this device. */
const orders = storedValues<WorkOrder>('order', orderSchema, byTray);

export function setOrderOfWork(closureId: string, order: WorkOrder): void {
  orders(closureId).set(order);
}

export function useOrderOfWork(closureId: string): WorkOrder {
  return orders(closureId).use();
}
