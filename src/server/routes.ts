/** Which request runs which operation. */
import { OPERATIONS } from '../api/operations';
import type { Method, Operation, OperationName } from '../api/operations';

const patterns = (Object.entries(OPERATIONS) as [OperationName, Operation][]).map(([operation, { method, path }]) => ({
  operation,
  method,
  parts: path.split('/').slice(1),
}));

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
  for (const { operation, method: taken, parts } of patterns) {
    const params = match(path, parts);
    if (!params) continue;
    if (taken === method || (method === 'HEAD' && taken === 'GET')) return { kind: 'route', operation, params };
    allowed.push(taken);
  }
  return allowed.length > 0 ? { kind: 'method', allowed } : { kind: 'nothing' };
}
