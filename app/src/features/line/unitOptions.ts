import type { Units } from '@cordel/core';

/** In which units a project is shown. */
export const unitOptions: readonly { readonly value: Units; readonly label: string }[] = [
  { value: 'mm', label: 'Meters, mm' },
  { value: 'in', label: 'Feet, inches' },
];
