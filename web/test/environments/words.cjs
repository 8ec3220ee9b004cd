module.exports = globalThis.radiculaWords;
