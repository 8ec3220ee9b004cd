import { rulesOut } from "../../words/index.js";

test.each([
  [0.01, "Rules out little"],
  [0.32, "Rules out about a third"],
  [0.5, "Rules out about half"],
  [0.66, "Rules out about two thirds"],
  [0.99, "Rules out nearly everything"],
  [1.2, "Rules out nearly everything"],
])("%d of what is open: %s", (share, words) => expect(rulesOut(share)).toBe(words));
