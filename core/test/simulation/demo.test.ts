import { checkDemoJobs, demoJobs } from "../demoJobs.js";

test("ten jobs, one for each kind of cause", () => {
  expect(demoJobs.length).toBe(10);
  expect(demoJobs.filter((j) => j.hidden.also).length).toBe(1);
  expect(demoJobs.filter((j) => j.hidden.presence).length).toBe(1);
  expect(demoJobs.filter((j) => j.hidden.mistaken).length).toBe(1);
});

checkDemoJobs(demoJobs.filter((_, i) => i % 2 === 0));
