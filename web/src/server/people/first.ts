import { isDatabaseGone } from "../db/gone";
import { anyAdministrator } from "./repo";

/** Says in the server's log how the first person is added, where nobody could let others in. */
export async function sayHowToBegin(): Promise<void> {
  try {
    if (await anyAdministrator()) return;
    console.error(
      'nobody can sign in yet. Add the first person: npm run people -- add "FULL NAME" SIGN-IN-NAME administrator',
    );
  } catch (error) {
    if (!isDatabaseGone(error)) throw error;
  }
}
