export default new Proxy({}, { get: (_target, name) => String(name) });
