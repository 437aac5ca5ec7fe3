'use client';
import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import MenuList from '@mui/material/MenuList';
import Popover from '@mui/material/Popover';
import { useState } from 'react';
import { groupBy } from '../../core/design';
import type { Command } from '../session/commands';
import styles from './CommandsMenu.module.css';

/** Everything that can be done on the screen in view, in groups, with its keys. */
export function CommandsMenu({ commands }: { commands: readonly Command[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <button className="tool" aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        Menu <span aria-hidden="true">▾</span>
      </button>
      {anchor && <Commands {...{ anchor, commands }} onClose={() => setAnchor(null)} />}
    </>
  );
}

interface CommandsProps {
  readonly anchor: HTMLElement;
  readonly commands: readonly Command[];
  readonly onClose: () => void;
}

function Commands({ anchor, commands, onClose }: CommandsProps) {
  const groups = groupBy(commands, (c) => c.group ?? 'This screen');
  const run = (command: Command) => () => {
    onClose();
    command.run();
  };
  return (
    <Popover
      open
      anchorEl={anchor}
      onClose={onClose}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
      transformOrigin={{ vertical: 'top', horizontal: 'right' }}
    >
      <MenuList autoFocusItem dense className={styles.columns} aria-label="Commands">
        {[...groups].flatMap(([group, own]) => [
          <ListSubheader key={group} className={styles.group} disableSticky>
            {group}
          </ListSubheader>,
          ...own.map((command) => (
            <MenuItem key={command.id} className={styles.item} onClick={run(command)}>
              <span className={styles.title}>{command.title}</span>
              {command.keys[0] && <kbd className="key">{command.keys[0].replace('Arrow', '')}</kbd>}
            </MenuItem>
          )),
        ])}
      </MenuList>
    </Popover>
  );
}
