/** What the members of a bundle lead to. */
import { bundleAt, farEnd, hostById, linkAt } from '../../design';
import type { Bundle, Design, Host } from '../../design';

export type Partner =
  { readonly kind: 'bundle'; readonly bundle: Bundle } | { readonly kind: 'host'; readonly host: Host };

/** Where a member's cable ends: in a bundle, at a host, at a single port, or nowhere. */
export function partnerAt(design: Design, port: string): Partner | null {
  const link = linkAt(design, port);
  if (!link) return null;
  const far = farEnd(link, port);
  if ('host' in far) {
    const host = hostById(design, far.host);
    return host ? { kind: 'host', host } : null;
  }
  const bundle = bundleAt(design, far.port);
  return bundle ? { kind: 'bundle', bundle } : null;
}

export const partnerId = (p: Partner): string => (p.kind === 'bundle' ? p.bundle.id : p.host.id);
