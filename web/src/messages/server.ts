import { addGerman } from "./german";

// a server speaks to everybody
addGerman();
export { t } from ".";
