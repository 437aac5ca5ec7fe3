/** Pages of a bundle with charts, which are large: loaded when they are opened. */
import { lazy } from 'react';

export const Distribution = lazy(() => import('./Distribution').then((m) => ({ default: m.Distribution })));
export const CompareOptions = lazy(() => import('./CompareOptions').then((m) => ({ default: m.CompareOptions })));
