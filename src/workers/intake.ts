/** Files in a worker: recognises and reads them, into an open design or as a new one, without holding up the page. */
import { nanoid } from 'nanoid';
import type { Design } from '../core/design';
import { intakeAsDesign, intakeInto } from '../core/formats';
import type { Intake, SourceFile } from '../core/formats';

export interface IntakeRequest {
  /** Null for a new design. */
  readonly into: Design | null;
  readonly files: readonly SourceFile[];
}

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<IntakeRequest>) => void) | null;
  postMessage: (intake: Intake) => void;
};

scope.onmessage = ({ data: { into, files } }) =>
  scope.postMessage(
    into ? intakeInto(into, files, (prefix) => `${prefix}-${nanoid(8)}`) : intakeAsDesign('Imported design', files),
  );
