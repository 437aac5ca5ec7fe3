/** Proposals in a worker: takes a design, reports its progress, answers with what was found. */
import { nanoid } from 'nanoid';
import type { Progress, Proposals } from '../core/goals';
import type { Design } from '../core/design';
import { propose } from '../core/review';
import { solveDesign } from '../core/trees';
import { serveJob } from './job';

const newId = (prefix: string): string => `${prefix}-${nanoid(8)}`;

serveJob<Design, Progress, Proposals>((design, { report }) => propose(solveDesign(design), newId, report));
