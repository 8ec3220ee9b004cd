import { issueText, placeOf } from "@radicula/core/words";
import type { Issue } from "@radicula/core";
import { problems } from "./en/problems";
import { t } from ".";

/** Words a problem: what only the web can meet, and what it shares with the command line. */
export function say(issue: Pick<Issue, "code" | "path" | "params">): { text: string; place: string } {
  const text = isOurs(issue.code) ? tOf(issue.code, issue.params) : issueText(issue);
  return { text, place: placeOf(issue) };
}

const isOurs = (code: string): code is keyof typeof problems => code in problems;
/** values come from elsewhere, by the names that the message has */
const tOf = t as (code: keyof typeof problems, values: Issue["params"]) => string;
