/** What other rooms use of formats. */
export { exportCsv } from './csv-export';
export { importCsv } from './csv-import';
export { exportDifference, exportFormat } from './export';
export { exportGraphml } from './graphml-export';
export { readGraphml } from './graphml';
export { csvOmissions } from './csv-omissions';
export type { CsvTable } from './csv-omissions';
export { intakeAsDesign, intakeInto } from './intake';
export type { NetworkIntake } from './intake';
export type { Intake, TakenFile } from './intake';
export { NEIGHBOUR_COLUMNS, isNeighbourJson, readNeighbourCsv, readNeighbourJson, switchNames } from './neighbours';
export type { SourceFile } from './recognise';
export { solutionOf } from './solution';
export type { SolutionTree } from './solution';
export { formatTableFault, guarded, readTable, unguarded } from './table';
export type { TableFault } from './table';
export { asClassic, exportLinuxLab } from './linux-lab';
