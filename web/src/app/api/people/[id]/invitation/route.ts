import { issue } from "@radicula/core";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { noteEvent } from "@/server/people/events";
import { invite, personById } from "@/server/people/repo";
import { Role } from "@/ui/roles";
import { ADDRESS_HEADER, mayManage, signedIn } from "@/server/people/signedIn";

export const dynamic = "force-dynamic";
type Context = { params: Promise<{ id: string }> };

/** A new invitation, also for who has lost the password: 201 with its code. */
export const POST = (request: Request, { params }: Context) =>
  answering(async () => {
    const by = signedIn(request.headers);
    const sent = await jsonBody(request);
    if (!sent.ok) return sent.refused;
    const person = await personById((await params).id);
    if (!person) return refuse(404, [issue("sign-in.no-such-person")]);
    if (!by || !mayManage(by.role, Role.parse(person.role))) return refuse(403, [issue("sign-in.not-allowed")]);
    if (person.isDisabled) return refuse(409, [issue("sign-in.disabled")]);
    const code = await invite(person.id);
    const address = request.headers.get(ADDRESS_HEADER) ?? undefined;
    await noteEvent("person-invited", { by: by.name, about: person.name, address });
    return answer({ code }, 201);
  });
