import { closure, definition, id } from '../../test/example';
import { labelSizes, labelsFor } from './labels';

test('a closure, its trays with what lies on them, its cables with where they lead', () => {
  expect(labelsFor(definition).map(({ kind, title, lines, path }) => [kind, title, lines, path])).toEqual([
    ['closure', 'Joint', ['Example', 'A A, B B'], `/p/${id(41)}/c/${closure.id}`],
    ['tray', 'Tray 1', ['Joint · 12 fibers', 'A 1–12'], `/p/${id(41)}/c/${closure.id}/t/1`],
    ['tray', 'Tray 2', ['Joint · 12 fibers', 'A 13–24'], `/p/${id(41)}/c/${closure.id}/t/2`],
    ['cable', 'A · A', ['Joint · 24 fibers', 'from Hub'], `/p/${id(41)}/cable/${id(1)}`],
    ['cable', 'B · B', ['Joint · 24 fibers', 'to Cabinet'], `/p/${id(41)}/cable/${id(2)}`],
  ]);
  expect(labelsFor(definition, id(99))).toEqual([]);
});

test('every size fits on its sheet (A4 by ISO 216: 210 × 297 mm; Letter: 8.5 × 11 in)', () => {
  const pages = { A4: [210, 297], LETTER: [215.9, 279.4], roll: [Infinity, Infinity] } as const;
  for (const { page, columns, rows, width, height, left, top, stepX, stepY } of labelSizes) {
    expect(left + (columns - 1) * stepX + width).toBeLessThanOrEqual(pages[page][0] + 1e-9);
    expect(top + (rows - 1) * stepY + height).toBeLessThanOrEqual(pages[page][1] + 1e-9);
    expect(stepX).toBeGreaterThanOrEqual(width);
    expect(stepY).toBeGreaterThanOrEqual(height);
  }
});
