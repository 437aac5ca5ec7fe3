/** The panels of what is selected, in one script: they are fetched together. */
export { ManyPanel } from './ManyPanel';
export { NotePanel } from './NotePanel';
export { HostPanel, SegmentPanel } from './OtherPanels';
export { PathPanel } from './PathPanel';
export { SwitchPanel } from './SwitchPanel';
export { WirePanel } from './WirePanel';
