'use client';
import TextField from '@mui/material/TextField';
import { later } from '../../controls/later';
import { PLACE_WORDS } from './place-ends';
import type { PlaceEnds } from './place-ends';

/** The fields while what they offer is still on its way. */
function EmptyFields() {
  return (
    <div className="places" role="group" aria-label="Path between two places">
      {PLACE_WORDS.map(({ hint, label }) => (
        <TextField
          key={label}
          fullWidth
          placeholder={hint}
          slotProps={{ htmlInput: { 'aria-label': label } }}
          disabled
        />
      ))}
    </div>
  );
}

/** Two fields for the two ends of a path; when both are filled, both places are selected and the path is shown. */
export const PlacePicker = later<PlaceEnds>(() => import('./PlaceFields').then((m) => m.PlaceFields), {
  meanwhile: EmptyFields,
  waits: true,
});
