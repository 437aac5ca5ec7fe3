/** Files in a worker: recognises and reads them, into an open design or as a new one, without holding up the page. */
import { nanoid } from 'nanoid';
import type { Design } from '../core/design';
import { intakeAsDesign, intakeInto } from '../core/formats';
import type { Intake, NetworkIntake, SourceFile } from '../core/formats';
import { serveJob } from './job';

export interface IntakeRequest {
  /** Null for a new design. */
  readonly into: Design | null;
  readonly files: readonly SourceFile[];
  readonly how: NetworkIntake;
}

serveJob<IntakeRequest, never, Intake>(({ into, files, how }) =>
  into ? intakeInto(into, files, (prefix) => `${prefix}-${nanoid(8)}`, how) : intakeAsDesign('Imported design', files),
);
