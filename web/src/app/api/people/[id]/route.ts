import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse, refuseBody } from "@/server/answers";
import { noteEvent } from "@/server/people/events";
import { changePerson, personById } from "@/server/people/repo";
import { Role } from "@/ui/roles";
import { ADDRESS_HEADER, mayManage, signedIn } from "@/server/people/signedIn";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };
const Change = z.object({ role: Role.optional(), isDisabled: z.boolean().optional() });

/** Changes a role, or whether a person may sign in: 409 where no administrator would be left. */
export const PUT = (request: Request, { params }: Context) =>
  answering(async () => {
    const by = signedIn(request.headers);
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const change = Change.safeParse(sent.value);
    if (!change.success) return refuseBody(change.error);
    const person = await personById((await params).id);
    if (!person) return refuse(404, [issue("sign-in.no-such-person")]);
    const { role, isDisabled } = change.data;
    if (!by || !mayManage(by.role, Role.parse(person.role)) || (role && !mayManage(by.role, role)))
      return refuse(403, [issue("sign-in.not-allowed")]);
    if (!(await changePerson(person.id, change.data))) return refuse(409, [issue("sign-in.last-administrator")]);
    const told = { by: by.name, about: person.name, address: request.headers.get(ADDRESS_HEADER) ?? undefined };
    if (role && role !== person.role) await noteEvent("person-changed", told);
    if (isDisabled !== undefined && isDisabled !== person.isDisabled)
      await noteEvent(isDisabled ? "person-disabled" : "person-enabled", told);
    return answer({ done: true });
  });
