export { GLOSSARY, glossaryPage } from './glossary';
export type { TermId } from './glossary';
export { bundleMessages } from './bundles';
