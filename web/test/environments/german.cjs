module.exports = globalThis.radiculaGerman;
