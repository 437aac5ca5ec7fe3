/** For which trees a setting has to be made so that one tree follows it. */
import { scopeAt } from '../../design';
import type { Scope, Switch } from '../../design';
import type { SolvedDesign, SolvedTree } from '../../trees';

export const scopeOf = ({ topology }: SolvedDesign, of: SolvedTree, s: Switch): Scope =>
  scopeAt(topology.design, s, of.tree);
