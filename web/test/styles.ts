/** CSS modules in tests: every class is its own name. */
const styles = new Proxy({}, { get: (_target, name) => String(name) });
export default styles;
