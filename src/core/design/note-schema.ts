/** Notes on the drawing: what an engineer writes beside the network, and what it is about. */
import { z } from 'zod';
import { documentMessages as say } from '../messages';
import { choice, coordinate, id, name, saying } from './values';

/** Words at a place, a frame with a title, or a distance between two places with what is to be said of it. */
export const NOTE_FORMS = ['text', 'box', 'distance'] as const;
export const NOTE_LENGTH = 400;

export const noteSchema = z.strictObject({
  id,
  text: z
    .string(saying(() => say.noteText()))
    .trim()
    .min(
      1,
      saying(() => say.noteText()),
    )
    .max(
      NOTE_LENGTH,
      saying((value) => say.tooLong('The note', String(value).length, NOTE_LENGTH)),
    ),
  /** Absent: text. */
  form: choice('Form', NOTE_FORMS).optional(),
  /** Notes of a layer are shown and hidden together; absent: it is in none. */
  layer: name.optional(),
  hidden: z.boolean().optional(),
  /** Switches, hosts, segments and links that it is about and goes along with; what is gone is passed over. */
  about: z.array(id).default([]),
  /** Where it stands on the sheet; of a note that is about something, how far from where it would stand by itself. */
  x: coordinate.optional(),
  y: coordinate.optional(),
  /** The other corner of a box, the other end of a distance, where it is about nothing. */
  toX: coordinate.optional(),
  toY: coordinate.optional(),
});

export type Note = z.infer<typeof noteSchema>;
export type NoteForm = (typeof NOTE_FORMS)[number];
