module.exports = globalThis.radiculaLayout;
