/** Which request runs which operation. */
import type { OperationName } from './operations';

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE';

export interface Route {
  readonly method: Method;
  /** Below `/api`; `:name` is a part of the caller's. */
  readonly path: string;
  readonly operation: OperationName;
}

const VARIANT = '/variants/:variant';
const OF_DESIGN = '/designs/:design/variants/:variant';

export const ROUTES: readonly Route[] = [
  { method: 'GET', path: '/designs', operation: 'listDesigns' },
  { method: 'POST', path: '/designs', operation: 'createDesign' },
  { method: 'POST', path: '/import', operation: 'importDesign' },
  { method: 'GET', path: '/designs/:design', operation: 'design' },
  { method: 'PATCH', path: '/designs/:design', operation: 'renameDesign' },
  { method: 'DELETE', path: '/designs/:design', operation: 'deleteDesign' },
  { method: 'POST', path: '/designs/:design/duplicate', operation: 'duplicateDesign' },
  { method: 'POST', path: '/designs/:design/restore', operation: 'restoreDesign' },
  { method: 'POST', path: '/designs/:design/recover', operation: 'recoverDesign' },
  { method: 'POST', path: '/designs/:design/variants', operation: 'copyVariant' },
  { method: 'PATCH', path: OF_DESIGN, operation: 'renameVariant' },
  { method: 'DELETE', path: OF_DESIGN, operation: 'deleteVariant' },
  { method: 'POST', path: `${OF_DESIGN}/restore`, operation: 'restoreVariant' },
  { method: 'GET', path: VARIANT, operation: 'variant' },
  { method: 'GET', path: `${VARIANT}/steps`, operation: 'steps' },
  { method: 'POST', path: `${VARIANT}/steps`, operation: 'step' },
  { method: 'POST', path: `${VARIANT}/undo`, operation: 'undo' },
  { method: 'POST', path: `${VARIANT}/redo`, operation: 'redo' },
  { method: 'GET', path: `${VARIANT}/stack`, operation: 'stack' },
  { method: 'GET', path: `${VARIANT}/history`, operation: 'past' },
  { method: 'GET', path: `${VARIANT}/states/:revision`, operation: 'state' },
  { method: 'POST', path: `${VARIANT}/states`, operation: 'nameState' },
  { method: 'GET', path: `${VARIANT}/difference`, operation: 'difference' },
  { method: 'POST', path: `${VARIANT}/go-back`, operation: 'goBack' },
  { method: 'GET', path: `${VARIANT}/trees`, operation: 'trees' },
  { method: 'GET', path: `${VARIANT}/export`, operation: 'export' },
  { method: 'GET', path: '/backup', operation: 'backup' },
  { method: 'GET', path: '/archive', operation: 'archive' },
];

const patterns = ROUTES.map((route) => ({ route, parts: route.path.split('/').slice(1) }));

function match(parts: readonly string[], pattern: readonly string[]): Record<string, string> | null {
  if (parts.length !== pattern.length) return null;
  const params: Record<string, string> = {};
  for (const [i, part] of pattern.entries()) {
    const given = parts[i]!;
    if (part.startsWith(':')) params[part.slice(1)] = given;
    else if (part !== given) return null;
  }
  return params;
}

export type Found =
  | { readonly kind: 'route'; readonly operation: OperationName; readonly params: Record<string, string> }
  | { readonly kind: 'method'; readonly allowed: readonly Method[] }
  | { readonly kind: 'nothing' };

/** The operation behind a request. `path` is what follows `/api`, in decoded parts. */
export function findRoute(method: string, path: readonly string[]): Found {
  const allowed: Method[] = [];
  for (const { route, parts } of patterns) {
    const params = match(path, parts);
    if (!params) continue;
    if (route.method === method || (method === 'HEAD' && route.method === 'GET'))
      return { kind: 'route', operation: route.operation, params };
    allowed.push(route.method);
  }
  return allowed.length > 0 ? { kind: 'method', allowed } : { kind: 'nothing' };
}
