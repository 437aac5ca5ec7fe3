/** Where people work from when they change the network: what must stay in reach. */
import { z } from 'zod';
import { id, vlanNumber } from './values';

/** A host or a switch, and the VLAN in which switches are managed; absent: the one that is called so. The first counts. */
export const workplaceSchema = z.strictObject({ id, at: id, vlan: vlanNumber.optional() });

export type Workplace = z.infer<typeof workplaceSchema>;
