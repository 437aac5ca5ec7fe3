import manifest from '../../package.json';

/** Version of this release, as in package.json. */
export const VERSION: string = manifest.version;
