import { nanoid } from 'nanoid';
import type { NewId } from '../../core/editing';

/** No two pages share the middle, no two things of a page the end: thousands of ids cost no randomness. */
const page = nanoid(8);
let made = 0;
/** An id that nothing else has. */
export const newId: NewId = (prefix) => `${prefix}-${page}-${(++made).toString(36)}`;
