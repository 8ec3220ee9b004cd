import { issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse, refuseBody } from "@/server/answers";
import { noteEvent } from "@/server/people/events";
import { addPerson, invite, listPeople, PersonName, SignInName } from "@/server/people/repo";
import { Role } from "@/ui/roles";
import { ADDRESS_HEADER, mayManage, signedIn } from "@/server/people/signedIn";

export const dynamic = "force-dynamic";
const New = z.object({ name: PersonName, username: SignInName, role: Role, email: z.email().max(200).optional() });

export const GET = () => answering(async () => answer({ people: await listPeople() }));

/** Adds a person: 201 with the code of an invitation · 403 for a role above one's own · 409 a name is taken. */
export const POST = (request: Request) =>
  answering(async () => {
    const by = signedIn(request.headers);
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const person = New.safeParse(sent.value);
    if (!person.success) return refuseBody(person.error);
    if (!by || !mayManage(by.role, person.data.role)) return refuse(403, [issue("sign-in.not-allowed")]);
    const added = await addPerson(person.data);
    if (!added.ok) return refuse(409, [issue("sign-in.taken", [added.taken])]);
    const told = { by: by.name, about: person.data.name, address: request.headers.get(ADDRESS_HEADER) ?? undefined };
    await noteEvent("person-added", told);
    const code = await invite(added.id);
    await noteEvent("person-invited", told);
    return answer({ id: added.id, code }, 201);
  });
