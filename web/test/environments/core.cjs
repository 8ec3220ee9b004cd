module.exports = globalThis.radiculaCore;
