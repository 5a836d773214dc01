import { lazy } from 'react';

/** Forms, fetched when the first of them is opened: 20 KB that the bench need not wait for. Whoever uses one has a `Suspense` around it; a route has its own. */
export const LimitsScreen = lazy(() =>
  import('./formParts').then((parts) => ({ default: parts.LimitsScreen })),
);
export const NewProjectScreen = lazy(() =>
  import('./formParts').then((parts) => ({ default: parts.NewProjectScreen })),
);
export const ModelScreen = lazy(() =>
  import('./formParts').then((parts) => ({ default: parts.ModelScreen })),
);
export const TableScreen = lazy(() =>
  import('./formParts').then((parts) => ({ default: parts.TableScreen })),
);
export const CorrectionForm = lazy(() =>
  import('./formParts').then((parts) => ({ default: parts.CorrectionForm })),
);
export const MeasureScreen = lazy(() =>
  import('./formParts').then((parts) => ({ default: parts.MeasureScreen })),
);
