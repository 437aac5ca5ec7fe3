export { GLOSSARY, glossaryPage } from './glossary';
export type { TermId } from './glossary';
