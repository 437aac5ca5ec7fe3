/** Stands for a CSS module in unit tests: every class has its own name. */
module.exports = new Proxy({}, { get: (_, name) => (name === '__esModule' ? false : name) });
