'use client';
import { useSyncExternalStore } from 'react';

const never = () => () => {};

/** Whether the page runs in a browser yet: the chart fits itself to the window, so the server does not draw it. */
export const useInBrowser = () =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
