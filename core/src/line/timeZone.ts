import { z } from 'zod';

/** Whether this device knows a time zone of this name (IANA time zone database). */
export function isTimeZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

/** Name of a time zone in the IANA database, like “America/Sao_Paulo”. */
export const timeZoneSchema = z
  .string()
  .max(60, 'No time zone has so long a name.')
  .refine(isTimeZone, 'No time zone has this name. Pick one of the list, like “Europe/Lisbon”.');
