import { checkDemoJobs, demoJobs } from "../demoJobs.js";

checkDemoJobs(demoJobs.filter((_, i) => i % 2 === 1));
