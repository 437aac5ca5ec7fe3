export { GLOSSARY, glossaryPage } from './glossary';
export type { TermId } from './glossary';
export { bundleMessages } from './bundles';
export { BUNDLE_COST_WORDS, BUNDLE_KIND_WORDS, MODE_WORDS, SCALE_WORDS } from './settings';
