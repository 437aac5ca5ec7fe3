'use client';
import Menu from '@mui/material/Menu';
import type { ReactNode } from 'react';

interface Props {
  /** What was pressed; null while the menu is closed. */
  readonly at: HTMLElement | null;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A menu below what was pressed. It is there only while it is open: closed ones cost as much at each change as all that is seen. */
export function DropMenu({ at, onClose, children }: Props) {
  return (
    at && (
      <Menu open anchorEl={at} onClose={onClose}>
        {children}
      </Menu>
    )
  );
}
