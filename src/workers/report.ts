/** A report in a worker: takes a design, answers with the HTML file. */
import type { Design } from '../core/design';
import { reportOf } from '../core/report';
import { serveJob } from './job';

serveJob<Design, never, string>((design) => reportOf(design));
