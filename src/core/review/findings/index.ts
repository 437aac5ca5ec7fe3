/** Every rule of the review, in one table: what it is called, how bad it is, and how it is found. */
import * as bundles from './bundles';
import * as depth from './depth';
import * as guards from './guards';
import * as links from './links';
import * as modes from './modes';
import * as redundancy from './redundancy';
import * as roots from './roots';
import * as vlans from './vlans';
import type { Rule } from './rule';

/** In the order of subjects: roots, links, guards, bundles, VLANs, depth, modes, redundancy. */
export const RULES: readonly Rule[] = [
  ...Object.values(roots),
  ...Object.values(links),
  ...Object.values(guards),
  ...Object.values(bundles),
  ...Object.values(vlans),
  ...Object.values(depth),
  ...Object.values(modes),
  ...Object.values(redundancy),
];
