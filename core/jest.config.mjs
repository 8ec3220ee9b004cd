/**
 * The core's tests run compiled and without Jest's sandbox: its walls around every global access made the same tests
 * three times slower. `npm run test:core` compiles them first.
 */
export default {
  displayName: "core",
  runner: "jest-light-runner",
  testMatch: ["<rootDir>/dist-test/test/**/*.test.js"],
  transform: {},
};
