'use client';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { later } from '../../controls/later';
import { PATH_EVENT } from '../../session/commands';
import { PLACE_WORDS } from './place-ends';
import type { FieldsProps, PlaceEnds } from './place-ends';

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

const Fields = later<FieldsProps>(() => import('./PlaceFields').then((m) => m.PlaceFields), {
  meanwhile: EmptyFields,
  waits: true,
});

/** Two fields for the two ends of a path; when both are filled, both places are selected and the path is shown. */
export function PlacePicker(ends: PlaceEnds) {
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    const ask = () => setAsked((times) => times + 1);
    window.addEventListener(PATH_EVENT, ask);
    return () => window.removeEventListener(PATH_EVENT, ask);
  }, []);
  return <Fields {...ends} asked={asked} />;
}
