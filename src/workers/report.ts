/** A report in a worker: takes a design, answers with the HTML file. */
import type { Design } from '../core/design';
import { reportOf } from '../core/report';
import type { Paper, SectionId } from '../core/report';
import { serveJob } from './job';

export interface ReportRequest {
  readonly design: Design;
  readonly sections: readonly SectionId[];
  readonly paper: Paper;
}

serveJob<ReportRequest, never, string>(({ design, sections, paper }) => reportOf(design, sections, paper));
