/** Identifiers of spanning trees, as they stand in addresses, traces and answers: made and read back here alone. */

/** The CIST of MST bridges, or the common tree of a mixed network. */
export const COMMON_TREE = 'cist';
/** The one tree of all VLANs, by the protocol that runs it. */
export const SINGLE_TREES = ['rstp', 'stp'] as const;
export type SingleTree = (typeof SINGLE_TREES)[number];

/** `vlan-110`, the tree of one VLAN. */
export const vlanTreeId = (vlan: number): string => `vlan-${vlan}`;

/** `msti-2`, the tree of an MST instance; instance 0 is the CIST. */
export const instanceTreeId = (instance: number): string => (instance === 0 ? COMMON_TREE : `msti-${instance}`);

export type TreeIdParts =
  | { readonly kind: 'vlan'; readonly vlan: number }
  | { readonly kind: 'instance'; readonly instance: number }
  | { readonly kind: 'common' }
  | { readonly kind: 'single'; readonly protocol: SingleTree };

const NUMBERED = /^(vlan|msti)-(\d{1,4})$/;

/** What an identifier names; null for a text that is none. */
export function parseTreeId(id: string): TreeIdParts | null {
  if (id === COMMON_TREE) return { kind: 'common' };
  const protocol = SINGLE_TREES.find((p) => p === id);
  if (protocol) return { kind: 'single', protocol };
  const match = NUMBERED.exec(id);
  if (!match) return null;
  const number = Number(match[2]);
  return match[1] === 'vlan' ? { kind: 'vlan', vlan: number } : { kind: 'instance', instance: number };
}

/** VLAN whose tree an identifier names; null for the tree of several VLANs. */
export function vlanOfTreeId(id: string): number | null {
  const parts = parseTreeId(id);
  return parts?.kind === 'vlan' ? parts.vlan : null;
}
