/** Proposals in a worker: takes a design, reports its progress, answers with what was found. */
import { propose } from '../core/goals';
import type { Progress, Proposals } from '../core/goals';
import type { Design } from '../core/design';
import { solveDesign } from '../core/trees';
import { serveJob } from './job';

serveJob<Design, Progress, Proposals>((design, { report }) => propose(solveDesign(design), report));
